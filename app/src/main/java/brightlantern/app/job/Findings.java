package brightlantern.app.job;

import brightlantern.core.suspect.Evidence;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** What the stages found, in the order in which it was found. */
@Repository
public class Findings {
    private final JdbcClient db;
    private final Json json;
    private final ApplicationEventPublisher events;

    Findings(JdbcClient db, Json json, ApplicationEventPublisher events) {
        this.db = db;
        this.json = json;
        this.events = events;
    }

    /**
     * @param passed empty for what is neither right nor wrong
     * @param detail JSON of the samples behind it, or empty
     */
    public record Finding(
            long id,
            Instant at,
            String stage,
            String who,
            String text,
            Optional<Boolean> passed,
            Optional<Evidence> evidence,
            String detail) {}

    /** Told when something was found, so that open pages can follow. */
    public record Found(long jobId) {}

    public void add(
            long jobId,
            String stage,
            String who,
            String text,
            Optional<Boolean> passed,
            Optional<Evidence> evidence,
            Object detail) {
        db.sql(
                        "insert into finding (job_id, at, stage, who, text, passed, evidence, detail)"
                                + " values (?, ?, ?, ?, ?, ?, ?, ?)")
                .param(jobId)
                .param(Jobs.time(Instant.now()))
                .param(stage)
                .param(who)
                .param(text)
                .param(passed.orElse(null))
                .param(evidence.map(json::write).orElse(null))
                .param(detail == null ? null : json.write(detail))
                .update();
        events.publishEvent(new Found(jobId));
    }

    /** A finding with no samples behind it. */
    public void add(
            long jobId,
            String stage,
            String who,
            String text,
            Optional<Boolean> passed,
            Evidence evidence) {
        add(jobId, stage, who, text, passed, Optional.of(evidence), null);
    }

    public void note(long jobId, String stage, String who, String text) {
        add(jobId, stage, who, text, Optional.empty(), Optional.empty(), null);
    }

    public List<Finding> of(long jobId) {
        return query("where job_id = ? order by id", jobId);
    }

    /** Of all jobs of one vehicle. */
    public List<Finding> ofVehicle(String vin) {
        return query("where job_id in (select id from job where vin = ?) order by id", vin);
    }

    private List<Finding> query(String where, Object of) {
        return db.sql("select * from finding " + where)
                .param(of)
                .query(
                        (rs, n) ->
                                new Finding(
                                        rs.getLong("id"),
                                        Jobs.time(rs, "at"),
                                        rs.getString("stage"),
                                        rs.getString("who"),
                                        rs.getString("text"),
                                        Optional.ofNullable((Boolean) rs.getObject("passed")),
                                        Optional.ofNullable(rs.getString("evidence"))
                                                .map(t -> json.read(t, Evidence.class)),
                                        Optional.ofNullable(rs.getString("detail")).orElse("")))
                .list();
    }
}
