package brightlantern.app.picture;

import brightlantern.app.job.Cut;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Json;
import brightlantern.core.attachment.Content;
import brightlantern.core.attachment.FileKind;
import brightlantern.core.attachment.Mark;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/** Files that are kept with jobs. */
@Repository
public class Attachments {
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_ABOUT = 400;
    private static final int LONGEST_NOTE = 2000;
    private static final int LONGEST_TOLD = 60;

    private static final String HEAD =
            "select id, job_id, at, who, name, kind, type, width, height, taken, place, about, note,"
                    + " marks, reported from attachment ";

    private final JdbcClient db;
    private final Json json;

    Attachments(JdbcClient db, Json json) {
        this.db = db;
        this.json = json;
    }

    /**
     * What is known of a file without its content.
     *
     * @param width in pixels; 0 for what is no picture
     * @param taken when, as the camera says; empty when it is not to be kept
     * @param place where, in degrees; empty when it is not to be kept
     * @param about what it shows: a finding, a part or a capture, in words
     * @param reported whether it stands in the report
     */
    public record Head(
            long id,
            long jobId,
            Instant at,
            String who,
            String name,
            FileKind kind,
            String type,
            int width,
            int height,
            String taken,
            String place,
            String about,
            String note,
            List<Mark> marks,
            boolean reported) {
        /** Whether it can be looked at on a page. */
        public boolean isPicture() {
            return kind == FileKind.PICTURE;
        }
    }

    /** A file that is about to be kept. */
    record Brought(String name, Content content, Scaled file) {}

    long add(long jobId, String who, String about, Brought brought) {
        Scaled file = brought.file();
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        db.sql(
                        "insert into attachment (job_id, at, who, name, kind, type, width, height, taken,"
                                + " place, about, content, small)"
                                + " values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")
                .params(
                        jobId,
                        Jobs.time(Instant.now()),
                        who,
                        Cut.to(LONGEST_NAME, brought.name()),
                        brought.content().kind().name(),
                        file.type(),
                        file.width(),
                        file.height(),
                        Cut.to(LONGEST_TOLD, file.taken()),
                        Cut.to(LONGEST_TOLD, file.place()),
                        Cut.to(LONGEST_ABOUT, about),
                        file.content(),
                        file.small())
                .update(key, "id");
        return key.getKeyAs(Long.class);
    }

    /** Of a job, in the order in which they came. */
    public List<Head> of(long jobId) {
        return db.sql(HEAD + "where job_id = ? order by id")
                .param(jobId)
                .query((rs, n) -> head(rs))
                .list();
    }

    /** Pictures that stand in the reports of jobs on the shelf: job → its pictures. */
    Map<Long, List<Head>> onShelf() {
        return db
                .sql(
                        HEAD
                                + "where reported and kind = 'PICTURE' and job_id in (select job_id from"
                                + " shelf_case) order by id")
                .query((rs, n) -> head(rs))
                .list()
                .stream()
                .collect(Collectors.groupingBy(Head::jobId));
    }

    Optional<Head> head(long jobId, long id) {
        return db.sql(HEAD + "where job_id = ? and id = ?")
                .params(jobId, id)
                .query((rs, n) -> head(rs))
                .optional();
    }

    private Head head(ResultSet rs) throws SQLException {
        return new Head(
                rs.getLong("id"),
                rs.getLong("job_id"),
                Jobs.time(rs, "at"),
                rs.getString("who"),
                rs.getString("name"),
                FileKind.valueOf(rs.getString("kind")),
                rs.getString("type"),
                rs.getInt("width"),
                rs.getInt("height"),
                rs.getString("taken"),
                rs.getString("place"),
                rs.getString("about"),
                rs.getString("note"),
                List.of(json.read(rs.getString("marks"), Mark[].class)),
                rs.getBoolean("reported"));
    }

    /** What a file holds. */
    byte[] content(long id) {
        return bytes("content", id);
    }

    /** The small picture that stands for it in lists; empty for what is no picture. */
    byte[] small(long id) {
        return bytes("small", id);
    }

    private byte[] bytes(String column, long id) {
        return db.sql("select " + column + " from attachment where id = ?")
                .param(id)
                .query((rs, n) -> Optional.ofNullable(rs.getBytes(1)).orElse(new byte[0]))
                .single();
    }

    void tell(long id, String about, String note, boolean reported) {
        db.sql("update attachment set about = ?, note = ?, reported = ? where id = ?")
                .params(Cut.to(LONGEST_ABOUT, about), Cut.to(LONGEST_NOTE, note), reported, id)
                .update();
    }

    void mark(long id, List<Mark> marks) {
        db.sql("update attachment set marks = ? where id = ?")
                .params(json.write(marks), id)
                .update();
    }

    void remove(long id) {
        db.sql("delete from attachment where id = ?").param(id).update();
    }
}
