package brightlantern.app.job;

import brightlantern.core.take.Take;
import brightlantern.core.take.TakeChunk;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/** Takes as compressed columnar chunks of about a second. */
@Repository
public class Takes {
    public static final String REFUELLED = "refuelled";

    private final JdbcClient db;

    Takes(JdbcClient db) {
        this.db = db;
    }

    /**
     * @param ended empty while it runs, or when the program died meanwhile
     * @param circumstance refuelled when it was recorded soon after filling up; empty otherwise
     */
    public record TakeHead(
            long id,
            long jobId,
            String name,
            Instant started,
            Optional<Instant> ended,
            String circumstance) {
        public boolean refuelled() {
            return circumstance.equals(REFUELLED);
        }
    }

    public long start(long jobId, String name, Instant at, String circumstance) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        db.sql("insert into take (job_id, name, started, circumstance) values (?, ?, ?, ?)")
                .params(jobId, name, Jobs.time(at), circumstance)
                .update(key, "id");
        return key.getKeyAs(Long.class);
    }

    public void append(long takeId, int number, Map<String, Take.Column> columns) {
        db.sql("insert into take_chunk (take_id, number, content) values (?, ?, ?)")
                .params(takeId, number, TakeChunk.write(columns))
                .update();
    }

    public void mark(long takeId, double seconds, String text) {
        db.sql("insert into take_mark (take_id, seconds, text) values (?, ?, ?)")
                .params(takeId, seconds, text)
                .update();
    }

    public void end(long takeId, Instant at) {
        db.sql("update take set ended = ? where id = ?").params(Jobs.time(at), takeId).update();
    }

    public List<TakeHead> of(long jobId) {
        return db.sql("select * from take where job_id = ? order by id desc")
                .param(jobId)
                .query(
                        (rs, n) ->
                                new TakeHead(
                                        rs.getLong("id"),
                                        rs.getLong("job_id"),
                                        rs.getString("name"),
                                        Jobs.time(rs, "started"),
                                        Jobs.maybeTime(rs, "ended"),
                                        rs.getString("circumstance")))
                .list();
    }

    public Optional<TakeHead> head(long jobId, long id) {
        return of(jobId).stream().filter(t -> t.id() == id).findFirst();
    }

    public Take read(long takeId) {
        List<byte[]> chunks =
                db.sql("select content from take_chunk where take_id = ? order by number")
                        .param(takeId)
                        .query((rs, n) -> rs.getBytes(1))
                        .list();
        List<Take.Mark> marks =
                db.sql("select seconds, text from take_mark where take_id = ? order by seconds")
                        .param(takeId)
                        .query((rs, n) -> new Take.Mark(rs.getDouble(1), rs.getString(2)))
                        .list();
        return new Take(TakeChunk.join(chunks), marks);
    }
}
