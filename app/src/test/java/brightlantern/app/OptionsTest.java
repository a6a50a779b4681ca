package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.security.KeyStore;
import java.security.cert.X509Certificate;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is asked for at the start is checked before anything is begun. */
class OptionsTest {
    @TempDir Path folder;

    private Path vehicles;

    @BeforeEach
    void describe() throws Exception {
        vehicles = folder.resolve("vehicles");
        Files.createDirectories(vehicles.resolve("van"));
        Files.writeString(vehicles.resolve("van/vehicle.yaml"), "name: Van\n");
    }

    private List<String> mistakes(String... more) {
        List<String> args =
                new ArrayList<>(
                        List.of(
                                "--port=0",
                                "--data=" + folder.resolve("data"),
                                "--vehicles=" + vehicles));
        args.addAll(List.of(more));
        return Options.parse(args).mistakes();
    }

    @Test
    void bothWaysToWriteAnOptionAreUnderstoodAndTheLastOneCounts() {
        Options options = Options.parse(List.of("--port=1", "--port", "9000", "--demo"));
        assertThat(options.settings()).containsEntry(Options.PORT, "9000");
        assertThat(options.demo()).isTrue();
        assertThat(mistakes()).isEmpty();
    }

    @Test
    void whatNobodyKnowsIsNamed() {
        assertThatThrownBy(() -> Options.parse(List.of("--prot=9000")))
                .hasMessageContaining("'--prot=9000'")
                .hasMessageContaining("--port");
        assertThatThrownBy(() -> Options.parse(List.of("--port")))
                .hasMessage("Option --port: expected a value after it.");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "--port=99999|from 1 to 65535, found '99999'",
                "--port=often|found 'often'",
                "--bind=300.1.2.3|is no address",
                "--bind=no.such.host.invalid|nobody knows",
                "--find=192.0.2.7,1.2.3|'1.2.3' is no address",
                "--find=two words|is no host name",
                "--vehicles=/nowhere/at/all|there is no folder",
                "--data=/proc/1/nothing|cannot be used as a folder",
            })
    void whatCannotBeIsToldInASentence(String option, String told) {
        assertThat(mistakes(option)).singleElement().asString().contains(told);
    }

    @Test
    void aPortThatIsTakenAndAFolderWithoutDescriptionsAreTold() throws Exception {
        try (ServerSocket taken = new ServerSocket(0, 1, InetAddress.getByName("127.0.0.1"))) {
            assertThat(mistakes("--port=" + taken.getLocalPort()))
                    .singleElement()
                    .asString()
                    .startsWith("Port " + taken.getLocalPort() + " of 127.0.0.1 cannot be had");
        }
        assertThat(mistakes("--vehicles=" + folder))
                .singleElement()
                .asString()
                .contains("holds no description");
    }

    @Test
    void whoeverOpensItToOthersIsWarned() {
        assertThat(Options.parse(List.of("--bind=127.0.0.1")).warning()).isEmpty();
        assertThat(Options.parse(List.of("--bind=0.0.0.0")).warning().orElseThrow())
                .contains("not encrypted");
    }

    @Test
    void anotherDemoIsToldBeforeAnythingStarts(@TempDir Path data) throws Exception {
        try (ServerSocket other = new ServerSocket()) {
            other.bind(new InetSocketAddress("127.0.22.11", 13400));
            Options options =
                    Options.parse(
                            List.of(
                                    "--demo",
                                    "--data=" + data,
                                    "--vehicles=../vehicles",
                                    "--port=0"));
            assertThat(options.mistakes())
                    .singleElement()
                    .asString()
                    .contains("127.0.22.11")
                    .contains("another demo");
        }
    }

    /** A certificate is made once, belongs to its owner alone, and a wrong file is told. */
    @Test
    void pagesAreEncryptedWhereThatIsAsked(@TempDir Path data) throws Exception {
        assertThat(Options.parse(List.of("--tls=made", "--bind=0.0.0.0")).warning()).isEmpty();
        Certificate made = Certificate.of("made", data);
        assertThat(Certificate.of("made", data)).isEqualTo(made);
        KeyStore store = KeyStore.getInstance(made.file().toFile(), made.password().toCharArray());
        X509Certificate its = (X509Certificate) store.getCertificate("lantern");
        assertThat(its.getPublicKey().getAlgorithm()).isEqualTo("EC");
        its.checkValidity();
        assertThat(made.settings()).containsEntry("server.servlet.session.cookie.secure", "true");
        OwnFiles.closeToOthers(data);
        assertThat(Files.getPosixFilePermissions(made.file()))
                .containsExactlyInAnyOrder(
                        PosixFilePermission.OWNER_READ, PosixFilePermission.OWNER_WRITE);
        assertThatThrownBy(() -> Certificate.of(data.resolve("none").toString(), data))
                .hasMessageContaining("there is no readable file");
        Path text = Files.writeString(data.resolve("text"), "no certificate");
        assertThatThrownBy(() -> Certificate.of(text.toString(), data))
                .hasMessageContaining("is no PKCS #12 file");
    }
}
