package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class OwnFilesTest {
    @TempDir Path folder;

    private static String rights(Path of) throws IOException {
        return PosixFilePermissions.toString(Files.getPosixFilePermissions(of));
    }

    private Path file(String name) throws IOException {
        Path file = Files.writeString(folder.resolve(name), "x");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-r--r--"));
        return file;
    }

    @Test
    void theDataBelongToWhoeverRunsTheProgram() throws IOException {
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
        Path database = file("lantern.mv.db");
        OwnFiles.closeToOthers(folder);
        assertThat(rights(folder)).isEqualTo("rwx------");
        assertThat(rights(database)).isEqualTo("rw-------");
    }

    @Test
    void whatElseLiesThereIsLeftAsItIs() throws IOException {
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
        Path letter = file("letter.txt");
        Path database = file("lantern.mv.db");
        OwnFiles.closeToOthers(folder);
        assertThat(rights(folder)).isEqualTo("rwxr-xr-x");
        assertThat(rights(letter)).isEqualTo("rw-r--r--");
        assertThat(rights(database)).isEqualTo("rw-------");
    }
}
