package brightlantern.app.exercise;

import brightlantern.app.job.Jobs;
import brightlantern.app.job.Json;
import brightlantern.core.procedure.Event;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/** Logs of procedures that were run. */
@Repository
class KeptRuns {
    private final JdbcClient db;
    private final Json json;

    KeptRuns(JdbcClient db, Json json) {
        this.db = db;
        this.json = json;
    }

    /**
     * @param samples JSON of what was measured; empty when nothing was
     * @param following ids of the procedures that begin when it has come to its end
     */
    record Kept(
            long id,
            long jobId,
            String procedure,
            String who,
            Instant began,
            String samples,
            List<String> following) {}

    record Logged(Instant at, Event event) {}

    long begin(long jobId, String procedure, String who, List<String> following) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        db.sql(
                        "insert into procedure_run (job_id, procedure, who, began, following) values (?, ?, ?, ?, ?)")
                .params(
                        jobId,
                        procedure,
                        who,
                        Jobs.time(Instant.now()),
                        String.join(" ", following))
                .update(key, "id");
        return key.getKeyAs(Long.class);
    }

    void add(long runId, int n, Event event) {
        db.sql("insert into procedure_event (run_id, n, at, content) values (?, ?, ?, ?)")
                .params(runId, n, Jobs.time(Instant.now()), json.write(event))
                .update();
    }

    void nothingFollows(long runId) {
        db.sql("update procedure_run set following = '' where id = ?").param(runId).update();
    }

    void measured(long runId, Object samples) {
        db.sql("update procedure_run set samples = ? where id = ?")
                .params(json.write(samples), runId)
                .update();
    }

    /** Newest first. */
    List<Kept> of(long jobId) {
        return query("where job_id = ? order by id desc", jobId);
    }

    Optional<Kept> byId(long runId) {
        return query("where id = ?", runId).stream().findFirst();
    }

    private List<Kept> query(String where, long id) {
        return db.sql("select * from procedure_run " + where)
                .param(id)
                .query(
                        (rs, n) ->
                                new Kept(
                                        rs.getLong("id"),
                                        rs.getLong("job_id"),
                                        rs.getString("procedure"),
                                        rs.getString("who"),
                                        Jobs.time(rs, "began"),
                                        Optional.ofNullable(rs.getString("samples")).orElse(""),
                                        rs.getString("following")
                                                .lines()
                                                .flatMap(l -> Stream.of(l.split(" ")))
                                                .filter(f -> !f.isBlank())
                                                .toList()))
                .list();
    }

    List<Logged> log(long runId) {
        return db.sql("select * from procedure_event where run_id = ? order by n")
                .param(runId)
                .query(
                        (rs, n) ->
                                new Logged(
                                        Jobs.time(rs, "at"),
                                        json.read(rs.getString("content"), Event.class)))
                .list();
    }
}
