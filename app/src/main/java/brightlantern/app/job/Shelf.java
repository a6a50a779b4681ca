package brightlantern.app.job;

import brightlantern.core.shelf.ShelfCase;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Closed jobs as cases, and cases that came from elsewhere. */
@Repository
public class Shelf {
    private final JdbcClient db;
    private final Json json;
    private final AtomicLong version = new AtomicLong();
    private volatile Kept kept = new Kept(-1, List.of());

    private record Kept(long version, List<ShelfCase> cases) {}

    Shelf(JdbcClient db, Json json) {
        this.db = db;
        this.json = json;
    }

    /** Another number after each change. */
    public long version() {
        return version.get();
    }

    public void add(ShelfCase shelfCase) {
        db.sql("merge into shelf_case (job_id, content) key (job_id) values (?, ?)")
                .params(shelfCase.jobId(), json.write(shelfCase))
                .update();
        version.incrementAndGet();
    }

    /**
     * Takes cases from elsewhere; one that is there already is not taken twice.
     *
     * @return how many were new
     */
    @Transactional
    public int take(List<ShelfCase> cases) {
        List<ShelfCase> there = all();
        List<ShelfCase> more = cases.stream().distinct().filter(c -> !there.contains(c)).toList();
        more.forEach(
                c ->
                        db.sql("insert into shelf_import (content) values (?)")
                                .param(json.write(c))
                                .update());
        version.incrementAndGet();
        return more.size();
    }

    /** Forgets all that came from somebody. */
    public int forget(String origin) {
        int forgotten = 0;
        for (Object[] row :
                db.sql("select id, content from shelf_import")
                        .query((rs, n) -> new Object[] {rs.getLong(1), rs.getString(2)})
                        .list()) {
            if (json.read((String) row[1], ShelfCase.class).origin().equals(origin)) {
                forgotten += db.sql("delete from shelf_import where id = ?").param(row[0]).update();
            }
        }
        version.incrementAndGet();
        return forgotten;
    }

    /** A case whose job was opened again stands on no shelf. */
    public void remove(long jobId) {
        db.sql("delete from shelf_case where job_id = ?").param(jobId).update();
        version.incrementAndGet();
    }

    /** All cases, this workshop's own first, the newest first. */
    public List<ShelfCase> all() {
        long now = version.get();
        Kept known = kept;
        if (known.version() != now) {
            known = new Kept(now, read());
            kept = known;
        }
        return known.cases();
    }

    private List<ShelfCase> read() {
        List<ShelfCase> all = new ArrayList<>(of("shelf_case order by job_id desc"));
        all.addAll(of("shelf_import order by id desc"));
        return List.copyOf(all);
    }

    private List<ShelfCase> of(String table) {
        return db.sql("select content from " + table)
                .query((rs, n) -> json.read(rs.getString(1), ShelfCase.class))
                .list();
    }
}
