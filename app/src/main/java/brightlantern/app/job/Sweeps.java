package brightlantern.app.job;

import brightlantern.core.sweep.Sweep;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/**
 * Kept sweeps; a sweep is kept from its first module on, so that nothing is lost when it is cut
 * short.
 */
@Repository
public class Sweeps {
    private final JdbcClient db;
    private final Json json;

    Sweeps(JdbcClient db, Json json) {
        this.db = db;
        this.json = json;
    }

    public record Kept(long id, Sweep sweep) {}

    public long add(long jobId, Sweep sweep) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        db.sql("insert into sweep (job_id, started, content) values (?, ?, ?)")
                .params(jobId, Jobs.time(sweep.started()), json.write(sweep))
                .update(key, "id");
        return key.getKeyAs(Long.class);
    }

    public void update(long id, Sweep sweep) {
        db.sql("update sweep set content = ?, finished = ? where id = ?")
                .param(json.write(sweep))
                .param(sweep.finished().map(Jobs::time).orElse(null))
                .param(id)
                .update();
    }

    /** Newest first. */
    public List<Kept> of(long jobId) {
        return db.sql("select id, content from sweep where job_id = ? order by id desc")
                .param(jobId)
                .query((rs, n) -> kept(rs))
                .list();
    }

    public Optional<Kept> byId(long jobId, long id) {
        return db.sql("select id, content from sweep where job_id = ? and id = ?")
                .params(jobId, id)
                .query((rs, n) -> kept(rs))
                .optional();
    }

    private Kept kept(ResultSet rs) throws SQLException {
        return new Kept(rs.getLong("id"), json.read(rs.getString("content"), Sweep.class));
    }
}
