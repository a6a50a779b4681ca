package brightlantern.app.account;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Copies the database while work goes on (H2's BACKUP); {@code --restore=FILE} brings it back. */
@Controller
class BackupController {
    private static final Logger LOG = LoggerFactory.getLogger(BackupController.class);
    private static final DateTimeFormatter STAMP =
            DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss", Locale.ROOT).withZone(ZoneOffset.UTC);
    private static final double MEGABYTE = 1e6;

    private final JdbcClient db;
    private final Path data;

    BackupController(JdbcClient db, @Value("${lantern.data}") String data) {
        this.db = db;
        this.data = Path.of(data).toAbsolutePath();
    }

    @PostMapping("/accounts/backup")
    String backup(RedirectAttributes flash) {
        Path file = data.resolve("lantern.backup-" + STAMP.format(Instant.now()) + ".zip");
        try {
            db.sql("backup to '" + file.toString().replace("'", "''") + "'").update();
            long bytes = Files.size(file);
            LOG.info("Copied to {}", file);
            flash.addFlashAttribute(
                    "notice",
                    String.format(
                            Locale.ROOT,
                            "Copied to %s (%.1f MB). Take it to another machine; it is brought back with --restore=FILE.",
                            file,
                            bytes / MEGABYTE));
        } catch (DataAccessException | IOException failed) {
            LOG.warn("A copy could not be made", failed);
            flash.addFlashAttribute(
                    "error",
                    "The database could not be copied to "
                            + file
                            + ". Look whether there is room in that folder.");
        }
        return "redirect:/accounts";
    }
}
