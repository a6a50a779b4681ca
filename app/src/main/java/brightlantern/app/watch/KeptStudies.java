package brightlantern.app.watch;

import brightlantern.app.job.Jobs;
import brightlantern.app.job.Json;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/** Maps and stepped experiments that belong to a job. */
@Repository
class KeptStudies {
    private final JdbcClient db;
    private final Json json;

    KeptStudies(JdbcClient db, Json json) {
        this.db = db;
        this.json = json;
    }

    record Kept(long id, String name, Instant at, String content) {}

    /**
     * @param table kept_map or experiment
     */
    private List<Kept> of(String table, long jobId) {
        return db.sql("select * from " + table + " where job_id = ? order by id desc")
                .param(jobId)
                .query(
                        (rs, n) ->
                                new Kept(
                                        rs.getLong("id"),
                                        rs.getString("name"),
                                        Jobs.time(rs, "at"),
                                        rs.getString("content")))
                .list();
    }

    private long add(String table, long jobId, String name, String content) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        db.sql("insert into " + table + " (job_id, name, at, content) values (?, ?, ?, ?)")
                .params(jobId, name, Jobs.time(Instant.now()), content)
                .update(key, "id");
        return key.getKeyAs(Long.class);
    }

    List<Kept> maps(long jobId) {
        return of("kept_map", jobId);
    }

    void keepMap(long jobId, String name, String csv) {
        add("kept_map", jobId, name, csv);
    }

    List<Kept> experiments(long jobId) {
        return of("experiment", jobId);
    }

    long begin(long jobId, Experiment experiment) {
        return add("experiment", jobId, experiment.name(), json.write(experiment));
    }

    Optional<Experiment> experiment(long jobId, long id) {
        return experiments(jobId).stream()
                .filter(k -> k.id() == id)
                .findFirst()
                .map(k -> json.read(k.content(), Experiment.class));
    }

    void replace(long id, Experiment experiment) {
        db.sql("update experiment set content = ? where id = ?")
                .params(json.write(experiment), id)
                .update();
    }
}
