package brightlantern.app.job;

import java.time.Instant;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** What a job was measured with. */
@Repository
public class Instruments {
    private static final int LONGEST = 300;

    private final JdbcClient db;

    Instruments(JdbcClient db) {
        this.db = db;
    }

    /**
     * @param told as it names itself (IEEE 488.2, 10.14: maker, model, number, version)
     * @param since when it was used first
     */
    public record Used(String told, Instant since) {}

    /** Notes that an instrument was used; it is kept once. */
    public void used(long jobId, String kind, String told) {
        db.sql(
                        "merge into instrument t using (values (cast(? as bigint), cast(? as varchar)))"
                                + " s(job_id, told) on t.job_id = s.job_id and t.told = s.told"
                                + " when not matched then insert values (s.job_id, s.told, ?)")
                .params(
                        jobId,
                        Cut.to(LONGEST, kind + " " + told.replaceAll("\\p{Cntrl}", " ").strip()),
                        Jobs.time(Instant.now()))
                .update();
    }

    /** Of a job, in the order in which they were used first. */
    public List<Used> of(long jobId) {
        return db.sql("select told, since from instrument where job_id = ? order by since")
                .param(jobId)
                .query((rs, n) -> new Used(rs.getString("told"), Jobs.time(rs, "since")))
                .list();
    }
}
