package brightlantern.app.job;

import java.util.Optional;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** What is known of the workshop: as its lead has told it, or as it was started. */
@Repository
public class Workshops {
    /** An hour of work where nobody has told its price. */
    private static final double USUAL_RATE = 96;

    private final JdbcClient db;
    private final Workshop started;
    private volatile Workshop known;

    Workshops(
            JdbcClient db,
            @Value("${lantern.workshop}") String name,
            @Value("${lantern.currency}") String currency) {
        this.db = db;
        this.started = new Workshop(name, "", USUAL_RATE, 0, currency, false, 0);
    }

    /** As it is now. */
    public Workshop get() {
        Workshop now = known;
        if (now == null) {
            now = read().orElse(started);
            known = now;
        }
        return now;
    }

    private Optional<Workshop> read() {
        return db.sql("select * from workshop where id = 1")
                .query(
                        (rs, n) ->
                                new Workshop(
                                        rs.getString("name"),
                                        rs.getString("address"),
                                        rs.getDouble("hourly_rate"),
                                        rs.getDouble("tax_percent"),
                                        rs.getString("currency"),
                                        rs.getBoolean("decimal_comma"),
                                        rs.getInt("keep_months")))
                .optional();
    }

    /** Keeps what was told; the logo stays. */
    public synchronized void keep(Workshop workshop) {
        // columns that are not named stay as they are
        db.sql(
                        "merge into workshop (id, name, address, hourly_rate, tax_percent, currency,"
                                + " decimal_comma, keep_months) key (id) values (1, ?, ?, ?, ?, ?, ?, ?)")
                .params(
                        workshop.name(),
                        workshop.address(),
                        workshop.hourlyRate(),
                        workshop.taxPercent(),
                        workshop.currency(),
                        workshop.decimalComma(),
                        workshop.keepMonths())
                .update();
        known = workshop;
    }

    /** The logo, a JPEG; empty without one. */
    public Optional<byte[]> logo() {
        return db.sql("select logo from workshop where id = 1")
                .query((rs, n) -> Optional.ofNullable(rs.getBytes(1)))
                .optional()
                .flatMap(l -> l);
    }

    /** Keeps a logo; what else is known of the workshop stays. */
    public synchronized void keepLogo(byte[] jpeg) {
        keep(get());
        db.sql("update workshop set logo = ? where id = 1").param(jpeg).update();
    }
}
