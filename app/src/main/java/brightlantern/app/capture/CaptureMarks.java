package brightlantern.app.capture;

import brightlantern.app.job.Cut;
import brightlantern.app.job.Jobs;
import java.time.Instant;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** What somebody saw, or did, at times of captures. */
@Repository
class CaptureMarks {
    static final int LONGEST = 200;

    private final JdbcClient db;

    CaptureMarks(JdbcClient db) {
        this.db = db;
    }

    /**
     * @param seconds after the capture began
     */
    record Mark(long id, double seconds, String words, String who) {}

    void add(long captureId, double seconds, String words, String who) {
        db.sql(
                        "insert into capture_mark (capture_id, seconds, words, who, made)"
                                + " values (?, ?, ?, ?, ?)")
                .params(captureId, seconds, Cut.to(LONGEST, words), who, Jobs.time(Instant.now()))
                .update();
    }

    /** Of a capture, in the order of time. */
    List<Mark> of(long captureId) {
        return db.sql("select * from capture_mark where capture_id = ? order by seconds, id")
                .param(captureId)
                .query(
                        (rs, n) ->
                                new Mark(
                                        rs.getLong("id"),
                                        rs.getDouble("seconds"),
                                        rs.getString("words"),
                                        rs.getString("who")))
                .list();
    }

    /** Whether there was such a mark. */
    boolean remove(long captureId, long id) {
        return db.sql("delete from capture_mark where capture_id = ? and id = ?")
                        .params(captureId, id)
                        .update()
                > 0;
    }
}
