package brightlantern.app.watch;

import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** What columns of logs from elsewhere were said to be, for each kind of vehicle. */
@Repository
class ColumnMappings {
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_UNIT = 20;

    private final JdbcClient db;

    ColumnMappings(JdbcClient db) {
        this.db = db;
    }

    /**
     * @param value id of a described value, own for a value of its own, none when it is left out
     * @param unit in which the log gives it
     */
    record Said(String value, String unit) {}

    /** Column name → what it was said to be. */
    Map<String, Said> of(String vehicle) {
        Map<String, Said> known = new LinkedHashMap<>();
        db.sql("select column_name, value_id, unit from column_mapping where vehicle = ?")
                .param(vehicle)
                .query(
                        (rs, n) ->
                                known.put(
                                        rs.getString(1),
                                        new Said(rs.getString(2), rs.getString(3))))
                .list();
        return known;
    }

    void keep(String vehicle, String column, Said said) {
        db.sql(
                        "merge into column_mapping (vehicle, column_name, value_id, unit)"
                                + " key (vehicle, column_name) values (?, ?, ?, ?)")
                .params(
                        vehicle,
                        column.substring(0, Math.min(LONGEST_NAME, column.length())),
                        said.value(),
                        said.unit().substring(0, Math.min(LONGEST_UNIT, said.unit().length())))
                .update();
    }
}
