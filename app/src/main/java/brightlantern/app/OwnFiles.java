package brightlantern.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** What belongs to whoever runs the program, and to nobody else on the machine. */
final class OwnFiles {
    private static final Set<PosixFilePermission> FOLDER =
            PosixFilePermissions.fromString("rwx------");
    private static final Set<PosixFilePermission> FILE =
            PosixFilePermissions.fromString("rw-------");

    /** What the program itself puts into its folder. */
    private static final Pattern OURS = Pattern.compile("lantern\\..*|in-use\\.lock|surprise");

    private OwnFiles() {}

    /**
     * Gives the program's files (0600), and a folder that holds nothing else (0700), to their owner
     * alone, where the file system knows such rights.
     *
     * @throws IOException when they cannot be changed
     */
    static void closeToOthers(Path folder) throws IOException {
        if (!Files.getFileStore(folder).supportsFileAttributeView("posix")) {
            return;
        }
        List<Path> inside;
        try (Stream<Path> all = Files.list(folder)) {
            inside = all.toList();
        }
        if (inside.stream().allMatch(OwnFiles::isOurs)) {
            Files.setPosixFilePermissions(folder, FOLDER);
        }
        for (Path file : inside) {
            if (isOurs(file)) {
                Files.setPosixFilePermissions(file, FILE);
            }
        }
    }

    private static boolean isOurs(Path file) {
        return Files.isRegularFile(file) && OURS.matcher(file.getFileName().toString()).matches();
    }
}
