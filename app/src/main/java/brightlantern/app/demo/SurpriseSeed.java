package brightlantern.app.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * What draws the fault of the van to practise on. It stays the same for one folder of data, so that
 * a job goes on after a restart as it was left.
 */
@Component
class SurpriseSeed {
    private final Path file;

    SurpriseSeed(@Value("${lantern.data}") String data) {
        this.file = Path.of(data).toAbsolutePath().resolve("surprise");
    }

    /** Drawn once, then kept. */
    long value() {
        try {
            if (Files.exists(file)) {
                return Long.parseLong(Files.readString(file).trim());
            }
        } catch (NumberFormatException damaged) {
            // a damaged one is drawn anew
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
        long drawn = new SecureRandom().nextLong();
        try {
            Files.createDirectories(file.getParent());
            Files.writeString(file, String.valueOf(drawn));
        } catch (IOException full) {
            throw new UncheckedIOException(full);
        }
        return drawn;
    }
}
