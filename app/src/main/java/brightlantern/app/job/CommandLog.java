package brightlantern.app.job;

import java.time.Instant;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/**
 * Who commanded, cleared or wrote what, when and why, and what the vehicle answered. Rows are only
 * ever added.
 */
@Repository
public class CommandLog {
    /** A clear of codes. */
    public static final String CLEAR = "clear";

    /** Key off and on again, seen on the vehicle. */
    public static final String KEY = "key";

    public static final String OUTPUT = "output";

    /** Something was written into a module. */
    public static final String WRITE = "write";

    /** Characters of a command and of its reason. */
    private static final int LONGEST = 400;

    private static final int LONGEST_ANSWER = 1000;

    private final JdbcClient db;

    CommandLog(JdbcClient db) {
        this.db = db;
    }

    public record Line(
            Instant at,
            long jobId,
            String who,
            String vin,
            String kind,
            String what,
            String why,
            String answer) {}

    /** What stands for the answer of a command while none has come, or none ever came. */
    public static final String SENT = "sent; no answer is known";

    /** Keeps a line; no length of a text can prevent it. */
    public void add(Job job, String who, String kind, String what, String why, String answer) {
        begin(job, who, kind, what, why, answer);
    }

    /**
     * Keeps a line before its command is sent, so that nothing is ever sent of which nothing is
     * written.
     *
     * @return its number, for {@link #complete}
     */
    public long begin(Job job, String who, String kind, String what, String why, String answer) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        db.sql(
                        "insert into command_log (at, job_id, who, vin, kind, what, why, answer) values (?, ?, ?, ?, ?, ?, ?, ?)")
                .params(
                        Jobs.time(Instant.now()),
                        job.id(),
                        who,
                        job.vin(),
                        kind,
                        Cut.to(LONGEST, what),
                        Cut.to(LONGEST, why),
                        Cut.to(LONGEST_ANSWER, answer))
                .update(key, "id");
        return key.getKeyAs(Long.class);
    }

    /** Writes the answer to a command, and what kind it was by that. */
    public void complete(long line, String kind, String answer) {
        db.sql("update command_log set kind = ? where id = ?").params(kind, line).update();
        complete(line, answer);
    }

    /** Writes the answer to a command. */
    public void complete(long line, String answer) {
        db.sql("update command_log set answer = ? where id = ?")
                .params(Cut.to(LONGEST_ANSWER, answer), line)
                .update();
    }

    public List<Instant> times(long jobId, String kind) {
        return db.sql("select at from command_log where job_id = ? and kind = ? order by id")
                .params(jobId, kind)
                .query((rs, n) -> Jobs.time(rs, "at"))
                .list();
    }

    /** Newest first. */
    public List<Line> newest(int most) {
        return db.sql("select * from command_log order by id desc fetch first ? rows only")
                .param(most)
                .query(
                        (rs, n) ->
                                new Line(
                                        Jobs.time(rs, "at"),
                                        rs.getLong("job_id"),
                                        rs.getString("who"),
                                        rs.getString("vin"),
                                        rs.getString("kind"),
                                        rs.getString("what"),
                                        rs.getString("why"),
                                        rs.getString("answer")))
                .list();
    }
}
