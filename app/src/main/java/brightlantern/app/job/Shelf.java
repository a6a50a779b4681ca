package brightlantern.app.job;

import brightlantern.core.shelf.ShelfCase;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Closed jobs as cases. */
@Repository
public class Shelf {
    private final JdbcClient db;
    private final Json json;

    Shelf(JdbcClient db, Json json) {
        this.db = db;
        this.json = json;
    }

    public void add(ShelfCase shelfCase) {
        db.sql("merge into shelf_case (job_id, content) key (job_id) values (?, ?)")
                .params(shelfCase.jobId(), json.write(shelfCase))
                .update();
    }

    /** A case whose job was opened again stands on no shelf. */
    public void remove(long jobId) {
        db.sql("delete from shelf_case where job_id = ?").param(jobId).update();
    }

    public List<ShelfCase> all() {
        return db.sql("select content from shelf_case order by job_id desc")
                .query((rs, n) -> json.read(rs.getString(1), ShelfCase.class))
                .list();
    }
}
