package brightlantern.app.job;

import java.util.Collection;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Addresses at which modules of a vehicle without description answered. */
@Repository
public class FoundModules {
    /** A gateway that answers at more addresses answers at all of them. */
    public static final int MOST = 300;

    private final JdbcClient db;

    FoundModules(JdbcClient db) {
        this.db = db;
    }

    /** In rising order; an earlier version kept more than {@link #MOST}. */
    public List<Integer> of(String vin) {
        return db.sql("select address from found_module where vin = ? order by address limit ?")
                .params(vin, MOST)
                .query(Integer.class)
                .list();
    }

    public void add(String vin, Collection<Integer> addresses) {
        for (int address : addresses) {
            db.sql("merge into found_module (vin, address) values (?, ?)")
                    .params(vin, address)
                    .update();
        }
    }
}
