package brightlantern.app;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.SecureRandom;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/**
 * The certificate with which pages are encrypted (TLS): one that was given as a PKCS #12 file, or
 * one that is made here and kept in the data folder, which browsers ask about once.
 *
 * @param file PKCS #12
 */
record Certificate(Path file, String password) {
    /** What is said for a certificate that is to be made. */
    static final String MADE = "made";

    /** Where the password of a given file is read from. */
    static final String PASSWORD = "LANTERN_TLS_PASSWORD";

    private static final int PASSWORD_BYTES = 24;
    private static final long KEYTOOL_SECONDS = 60;

    /**
     * @param told {@link #MADE}, or a file
     * @param data the data folder
     * @throws IOException in a sentence, when it cannot be read or made
     */
    static Certificate of(String told, Path data) throws IOException {
        Certificate its =
                told.equals(MADE)
                        ? made(data)
                        : new Certificate(
                                Path.of(told).toAbsolutePath(),
                                Optional.ofNullable(System.getenv(PASSWORD)).orElse(""));
        its.check();
        return its;
    }

    private static Certificate made(Path data) throws IOException {
        Path file = data.resolve("lantern.tls.p12");
        Path kept = data.resolve("lantern.tls.password");
        if (!Files.exists(file) || !Files.exists(kept)) {
            byte[] random = new byte[PASSWORD_BYTES];
            new SecureRandom().nextBytes(random);
            Files.deleteIfExists(file);
            Files.writeString(kept, HexFormat.of().formatHex(random));
            OwnFiles.closeToOthers(data);
            keytool(file, Files.readString(kept));
        }
        return new Certificate(file, Files.readString(kept));
    }

    private static void keytool(Path file, String password) throws IOException {
        ProcessBuilder keytool =
                new ProcessBuilder(
                        System.getProperty("java.home") + File.separator + "bin/keytool",
                        "-genkeypair",
                        "-alias",
                        "lantern",
                        "-keyalg",
                        "EC",
                        "-groupname",
                        "secp256r1",
                        "-validity",
                        "3650",
                        "-dname",
                        "CN=Bright Lantern",
                        "-ext",
                        "san=dns:localhost,ip:127.0.0.1",
                        "-storetype",
                        "PKCS12",
                        "-keystore",
                        file.toString(),
                        "-storepass:env",
                        PASSWORD);
        keytool.environment().put(PASSWORD, password);
        keytool.redirectErrorStream(true);
        Process process = keytool.start();
        try {
            String told = new String(process.getInputStream().readAllBytes()).strip();
            if (!process.waitFor(KEYTOOL_SECONDS, TimeUnit.SECONDS) || process.exitValue() != 0) {
                throw new IOException("A certificate could not be made: " + told);
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IOException("A certificate could not be made: it was interrupted");
        }
    }

    private void check() throws IOException {
        if (!Files.isReadable(file)) {
            throw new IOException(
                    "Option --tls: there is no readable file '"
                            + file
                            + "'; expected a PKCS #12 file, or 'made'");
        }
        try {
            KeyStore.getInstance(file.toFile(), password.toCharArray());
        } catch (GeneralSecurityException | IOException wrong) {
            throw new IOException(
                    "Option --tls: '"
                            + file
                            + "' is no PKCS #12 file that opens with the password in "
                            + PASSWORD);
        }
    }

    /** As the application takes it; cookies then travel encrypted alone. */
    Map<String, String> settings() {
        Map<String, String> settings = new LinkedHashMap<>();
        settings.put("server.ssl.key-store", file.toString());
        settings.put("server.ssl.key-store-type", "PKCS12");
        settings.put("server.ssl.key-store-password", password);
        settings.put("server.ssl.enabled-protocols", "TLSv1.3,TLSv1.2");
        settings.put("server.servlet.session.cookie.secure", "true");
        return settings;
    }
}
