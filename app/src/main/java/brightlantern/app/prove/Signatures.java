package brightlantern.app.prove;

import brightlantern.app.job.Cut;
import brightlantern.app.job.Jobs;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;
import javax.imageio.ImageIO;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Names that customers wrote on the screen below their report. */
@Repository
class Signatures {
    private static final String BEGINNING = "data:image/png;base64,";
    private static final int MOST_CHARACTERS = 400_000;
    private static final int MOST_PIXELS = 4_000_000;
    private static final int LONGEST_NAME = 200;

    private final JdbcClient db;

    Signatures(JdbcClient db) {
        this.db = db;
    }

    /**
     * @param png as it was drawn, written anew by this program
     */
    record Signature(Instant at, String byWhom, byte[] png) {}

    /**
     * A drawing as the page sends it.
     *
     * @throws IllegalArgumentException when it is none
     */
    static byte[] drawing(String dataUrl) {
        if (!dataUrl.startsWith(BEGINNING) || dataUrl.length() > MOST_CHARACTERS) {
            throw new IllegalArgumentException("Nothing was written; write in the field first.");
        }
        try {
            // its decoder speaks of letters in its own words
            byte[] sent = Base64.getDecoder().decode(dataUrl.substring(BEGINNING.length()));
            BufferedImage image = ImageIO.read(new ByteArrayInputStream(sent));
            if (image == null || (long) image.getWidth() * image.getHeight() > MOST_PIXELS) {
                throw new IllegalArgumentException("What was written could not be read.");
            }
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(image, "png", out);
            return out.toByteArray();
        } catch (IOException | IllegalArgumentException torn) {
            throw new IllegalArgumentException("What was written could not be read.", torn);
        }
    }

    /** Keeps one; a later one takes its place. */
    @Transactional
    public void keep(long jobId, String byWhom, String who, byte[] png) {
        db.sql("delete from signature where job_id = ?").param(jobId).update();
        db.sql("insert into signature (job_id, at, by_whom, who, png) values (?, ?, ?, ?, ?)")
                .params(jobId, Jobs.time(Instant.now()), Cut.to(LONGEST_NAME, byWhom), who, png)
                .update();
    }

    Optional<Signature> of(long jobId) {
        return db.sql("select * from signature where job_id = ?")
                .param(jobId)
                .query(
                        (rs, n) ->
                                new Signature(
                                        Jobs.time(rs, "at"),
                                        rs.getString("by_whom"),
                                        rs.getBytes("png")))
                .optional();
    }
}
