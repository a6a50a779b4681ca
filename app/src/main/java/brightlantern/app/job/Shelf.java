package brightlantern.app.job;

import brightlantern.core.shelf.ShelfCase;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Closed jobs as cases, and cases that came from elsewhere. */
@Repository
public class Shelf {
    private final JdbcClient db;
    private final Json json;
    private final AtomicLong version = new AtomicLong();
    private volatile Kept kept = new Kept(-1, List.of(), Map.of());

    /**
     * @param imports cases from elsewhere → the number under which each is kept
     */
    private record Kept(long version, List<ShelfCase> cases, Map<ShelfCase, Long> imports) {}

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
     * @return those that were new, each with the number under which it is kept
     */
    @Transactional
    public Map<ShelfCase, Long> take(List<ShelfCase> cases) {
        Set<ShelfCase> there = new HashSet<>(all());
        Map<ShelfCase, Long> more = new LinkedHashMap<>();
        for (ShelfCase each : cases) {
            if (there.add(each)) {
                GeneratedKeyHolder key = new GeneratedKeyHolder();
                db.sql("insert into shelf_import (content) values (?)")
                        .param(json.write(each))
                        .update(key, "id");
                more.put(each, key.getKeyAs(Long.class));
            }
        }
        version.incrementAndGet();
        return more;
    }

    /** Forgets all that came from somebody. */
    public int forget(String origin) {
        int forgotten = 0;
        for (Map.Entry<ShelfCase, Long> kept : imports().entrySet()) {
            if (kept.getKey().origin().equals(origin)) {
                forgotten +=
                        db.sql("delete from shelf_import where id = ?")
                                .param(kept.getValue())
                                .update();
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
        return kept().cases();
    }

    /** Cases from elsewhere → the number under which each is kept. */
    public Map<ShelfCase, Long> imports() {
        return kept().imports();
    }

    private Kept kept() {
        long now = version.get();
        Kept known = kept;
        if (known.version() != now) {
            known = read(now);
            kept = known;
        }
        return known;
    }

    private Kept read(long now) {
        List<ShelfCase> all = new ArrayList<>();
        db.sql("select content from shelf_case order by job_id desc")
                .query((rs, n) -> json.read(rs.getString(1), ShelfCase.class))
                .list()
                .forEach(all::add);
        Map<ShelfCase, Long> imports = new LinkedHashMap<>();
        db.sql("select id, content from shelf_import order by id desc")
                .query(
                        (rs, n) ->
                                imports.put(
                                        json.read(rs.getString(2), ShelfCase.class), rs.getLong(1)))
                .list();
        all.addAll(imports.keySet());
        return new Kept(now, List.copyOf(all), Map.copyOf(imports));
    }
}
