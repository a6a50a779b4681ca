package brightlantern.app.learned;

import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** What modules had learned each time they were asked, over all jobs of a vehicle. */
@Repository
class LearnedReadings {
    private final JdbcClient db;

    LearnedReadings(JdbcClient db) {
        this.db = db;
    }

    /**
     * @param figure in the unit in which the module tells it
     */
    record Kept(long jobId, Instant at, String value, double figure) {}

    /**
     * @param figures value → figure in the unit in which the module tells it
     */
    void add(Job job, Instant at, Map<String, Double> figures) {
        figures.forEach(
                (value, figure) ->
                        db.sql(
                                        "insert into learned_reading (job_id, vin, at, value_id, figure)"
                                                + " values (?, ?, ?, ?, ?)")
                                .params(job.id(), job.vin(), Jobs.time(at), value, figure)
                                .update());
    }

    /** All of a vehicle, in the order of time. */
    List<Kept> of(String vin) {
        return db.sql("select * from learned_reading where vin = ? order by at, id")
                .param(vin)
                .query(
                        (rs, n) ->
                                new Kept(
                                        rs.getLong("job_id"),
                                        Jobs.time(rs, "at"),
                                        rs.getString("value_id"),
                                        rs.getDouble("figure")))
                .list();
    }
}
