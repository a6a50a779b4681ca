package brightlantern.app.page;

import brightlantern.core.signal.Units;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Repository;

/**
 * The units in which each person wants to see things: quantity → unit. Templates reach it as {@code
 * @units}.
 */
@Repository("units")
public class UnitChoices {
    private final JdbcClient db;
    private final Map<String, Map<String, String>> known = new ConcurrentHashMap<>();

    UnitChoices(JdbcClient db) {
        this.db = db;
    }

    public Map<String, String> of(String account) {
        return known.computeIfAbsent(
                account,
                a -> {
                    Map<String, String> choices = new LinkedHashMap<>();
                    db.sql("select quantity, unit from unit_choice where account = ?")
                            .param(a)
                            .query((rs, n) -> choices.put(rs.getString(1), rs.getString(2)))
                            .list();
                    return Map.copyOf(choices);
                });
    }

    /** Of the person whose request this is; nobody's when it is nobody's. */
    public Map<String, String> ofWhoever() {
        return Optional.ofNullable(SecurityContextHolder.getContext().getAuthentication())
                .map(Authentication::getName)
                .map(this::of)
                .orElse(Map.of());
    }

    /** A sentence that was written for everybody, as whoever asks for the page reads it. */
    public String read(String text) {
        return Units.inText(text, ofWhoever());
    }

    /** The unit in which whoever asks for the page reads and types what is kept in another. */
    public String unit(String kept) {
        return Units.quantity(kept).map(ofWhoever()::get).orElse(kept);
    }

    /**
     * @param unit empty for the unit that the vehicle's description shows
     * @throws IllegalArgumentException when the unit does not measure this quantity
     */
    public void choose(String account, String quantity, String unit) {
        if (unit.isEmpty()) {
            db.sql("delete from unit_choice where account = ? and quantity = ?")
                    .params(account, quantity)
                    .update();
        } else {
            if (!Units.quantity(unit).equals(Optional.of(quantity))) {
                throw new IllegalArgumentException(
                        "Unit '" + unit + "': expected one of " + Units.choices().get(quantity));
            }
            db.sql("merge into unit_choice (account, quantity, unit) values (?, ?, ?)")
                    .params(account, quantity, unit)
                    .update();
        }
        known.remove(account);
    }
}
