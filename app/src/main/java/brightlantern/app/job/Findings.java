package brightlantern.app.job;

import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.Vin;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** What the stages found, in the order in which it was found. */
@Repository
public class Findings {
    /** Characters of a finding's words. */
    /** What was built in this year is half a year old on the mean. */
    private static final double NEW_YEARS = 0.5;

    private static final int LONGEST = 2000;

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
     * @param about what a finding without evidence is about, the same each time it is done; empty
     *     for what is no check
     * @param takenBackBy who took it back, as entered by mistake
     */
    public record Finding(
            long id,
            Instant at,
            String stage,
            String who,
            String text,
            Optional<Boolean> passed,
            Optional<Evidence> evidence,
            String detail,
            String about,
            Optional<String> takenBackBy) {
        /** The same for the same check done again; empty for what is no check. */
        public String key() {
            return evidence.map(Evidence::key).orElse(about);
        }
    }

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
        add(jobId, stage, who, text, passed, evidence, detail, "");
    }

    /**
     * @param about what it is about where there is no evidence, the same each time it is done
     */
    public void add(
            long jobId,
            String stage,
            String who,
            String text,
            Optional<Boolean> passed,
            Optional<Evidence> evidence,
            Object detail,
            String about) {
        db.sql(
                        "insert into finding (job_id, at, stage, who, text, passed, evidence, detail, about)"
                                + " values (?, ?, ?, ?, ?, ?, ?, ?, ?)")
                .param(jobId)
                .param(Jobs.time(Instant.now()))
                .param(stage)
                .param(who)
                .param(Cut.to(LONGEST, text))
                .param(passed.orElse(null))
                .param(evidence.map(json::write).orElse(null))
                .param(detail == null ? null : json.write(detail))
                .param(about)
                .update();
        events.publishEvent(new Found(jobId));
    }

    /**
     * Takes back what was entered by mistake: it stays in the story and weighs no more.
     *
     * @return whether there was such a finding that counted
     */
    public boolean takeBack(long jobId, long id, String who) {
        int changed =
                db.sql(
                                "update finding set taken_back_by = ?, taken_back_at = ?"
                                        + " where job_id = ? and id = ? and taken_back_by is null")
                        .params(who, Jobs.time(Instant.now()), jobId, id)
                        .update();
        events.publishEvent(new Found(jobId));
        return changed == 1;
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

    /** What the odometer shows, where it is known, and how old the vehicle is by its VIN. */
    public void driven(long jobId, String who, double kilometres, Vin vin) {
        if (kilometres > 0 && Double.isFinite(kilometres)) {
            int now = LocalDate.now().getYear();
            OptionalInt built = vin.modelYear(now);
            add(
                    jobId,
                    "intake",
                    who,
                    String.format(
                            Locale.ROOT,
                            "The odometer shows %.0f km%s.",
                            kilometres,
                            built.isPresent()
                                    ? "; by its VIN it is of model year " + built.getAsInt()
                                    : ""),
                    Optional.empty(),
                    new Evidence.Driven(
                            kilometres,
                            built.isPresent() ? Math.max(NEW_YEARS, now - built.getAsInt()) : 0));
        }
    }

    public void note(long jobId, String stage, String who, String text) {
        add(jobId, stage, who, text, Optional.empty(), Optional.empty(), null);
    }

    /** All that count; what was taken back does not. */
    public List<Finding> of(long jobId) {
        return query("where job_id = ? and taken_back_by is null order by id", jobId);
    }

    /** All that were ever entered, those that were taken back among them. */
    public List<Finding> story(long jobId) {
        return query("where job_id = ? order by id", jobId);
    }

    /** Of all jobs of one vehicle. */
    public List<Finding> ofVehicle(String vin) {
        return query(
                "where taken_back_by is null and job_id in (select id from job where vin = ?) order by id",
                vin);
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
                                        Optional.ofNullable(rs.getString("detail")).orElse(""),
                                        rs.getString("about"),
                                        Optional.ofNullable(rs.getString("taken_back_by"))))
                .list();
    }
}
