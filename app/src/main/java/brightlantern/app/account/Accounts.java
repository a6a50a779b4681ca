package brightlantern.app.account;

import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Repository;

/** Accounts in the database; passwords are kept as hashes only. */
@Repository
public class Accounts {
    /** Shorter passwords are refused (NIST SP 800-63B, clause 5.1.1.1). */
    public static final int SHORTEST_PASSWORD = 8;

    private final JdbcClient db;
    private final PasswordEncoder encoder;

    Accounts(JdbcClient db, PasswordEncoder encoder) {
        this.db = db;
        this.encoder = encoder;
    }

    /** Each may what the one before it may, and more. */
    public enum Role {
        /** Sees everything and commands nothing. */
        ONLOOKER,
        /** Commands vehicles. */
        TECHNICIAN,
        /** Writes into modules. */
        LEAD,
        /** Makes accounts. */
        ADMINISTRATOR
    }

    public record Account(
            long id, String name, String display, String password, Role role, boolean enabled) {}

    public boolean isEmpty() {
        return db.sql("select count(*) from account").query(Long.class).single() == 0;
    }

    public Optional<Account> byName(String name) {
        return db.sql("select * from account where name = ?")
                .param(name)
                .query((rs, n) -> account(rs))
                .optional();
    }

    public List<Account> all() {
        return db.sql("select * from account order by name").query((rs, n) -> account(rs)).list();
    }

    private static Account account(java.sql.ResultSet rs) throws java.sql.SQLException {
        return new Account(
                rs.getLong("id"),
                rs.getString("name"),
                rs.getString("display"),
                rs.getString("password"),
                Role.valueOf(rs.getString("role")),
                rs.getBoolean("enabled"));
    }

    /**
     * Makes an account.
     *
     * @throws IllegalArgumentException says what is wrong with the input
     */
    public void add(String name, String display, String password, Role role) {
        if (!name.matches("[a-z][a-z0-9.-]{1,39}")) {
            throw new IllegalArgumentException(
                    "Name '"
                            + name
                            + "': expected 2 to 40 small letters, digits, dots or hyphens, a letter first.");
        }
        if (password.length() < SHORTEST_PASSWORD) {
            throw new IllegalArgumentException(
                    "Password: expected at least " + SHORTEST_PASSWORD + " characters.");
        }
        if (byName(name).isPresent()) {
            throw new IllegalArgumentException("Name '" + name + "' is taken.");
        }
        db.sql("insert into account (name, display, password, role) values (?, ?, ?, ?)")
                .params(
                        name,
                        display.isBlank() ? name : display.trim(),
                        encoder.encode(password),
                        role.name())
                .update();
    }

    public void enable(long id, boolean enabled) {
        db.sql("update account set enabled = ? where id = ?").params(enabled, id).update();
    }
}
