package brightlantern.app.watch;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Chosen sets of live values, kept for a kind of vehicle: one's own, and those that are shared. */
@Repository
class WatchLists {
    private static final int LONGEST_NAME = 120;
    private static final int LONGEST_CONTENT = 20_000;

    private final JdbcClient db;

    WatchLists(JdbcClient db) {
        this.db = db;
    }

    record WatchList(long id, String name, String owner, boolean shared, List<String> values) {}

    /** Those that a person may use. */
    List<WatchList> of(String vehicle, String who) {
        return db.sql(
                        "select * from watch_list where vehicle = ? and (owner = ? or shared)"
                                + " order by name, id")
                .params(vehicle, who)
                .query(
                        (rs, n) ->
                                new WatchList(
                                        rs.getLong("id"),
                                        rs.getString("name"),
                                        rs.getString("owner"),
                                        rs.getBoolean("shared"),
                                        Arrays.asList(rs.getString("content").split(" "))))
                .list();
    }

    Optional<WatchList> one(String vehicle, String who, long id) {
        return of(vehicle, who).stream().filter(l -> l.id() == id).findFirst();
    }

    /**
     * Keeps a list; one's own of the same name is replaced.
     *
     * @throws IllegalArgumentException says what is wrong with it
     */
    void keep(String vehicle, String who, String name, boolean shared, List<String> values) {
        if (name.isBlank() || name.length() > LONGEST_NAME) {
            throw new IllegalArgumentException(
                    "Name of the watch list: expected 1 to " + LONGEST_NAME + " letters");
        }
        String content = String.join(" ", values);
        if (values.isEmpty() || content.length() > LONGEST_CONTENT) {
            throw new IllegalArgumentException(
                    values.isEmpty()
                            ? "Choose values first; an empty watch list is not kept"
                            : "This watch list holds too many values to be kept");
        }
        db.sql(
                        "merge into watch_list (vehicle, owner, name, shared, content)"
                                + " key (vehicle, owner, name) values (?, ?, ?, ?, ?)")
                .params(vehicle, who, name.trim(), shared, content)
                .update();
    }

    /** Removes one's own list. */
    void remove(String vehicle, String who, long id) {
        db.sql("delete from watch_list where id = ? and vehicle = ? and owner = ?")
                .params(id, vehicle, who)
                .update();
    }
}
