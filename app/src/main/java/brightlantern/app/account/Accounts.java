package brightlantern.app.account;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Repository;

/** Accounts in the database; passwords are kept as hashes only. */
@Repository
public class Accounts {
    /** Shorter passwords are refused (NIST SP 800-63B, clause 5.1.1.1). */
    public static final int SHORTEST_PASSWORD = 8;

    /** BCrypt looks at so many bytes and no more. */
    private static final int LONGEST_BYTES = 72;

    /**
     * Twelve of thirty-one letters: 59 bits, and none that is taken for another when read aloud.
     */
    private static final int ONCE_LETTERS = 12;

    private static final String LETTERS = "abcdefghijkmnpqrstuvwxyz2345678";
    private static final SecureRandom RANDOM = new SecureRandom();

    private final JdbcClient db;
    private final PasswordEncoder encoder;
    private final ApplicationEventPublisher events;

    Accounts(JdbcClient db, PasswordEncoder encoder, ApplicationEventPublisher events) {
        this.events = events;
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
            long id,
            String name,
            String display,
            String password,
            Role role,
            boolean enabled,
            boolean mustChange) {}

    /** What was signed in under an account until now holds no longer. */
    public record SignInsEnded(String name) {}

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

    private static Account account(ResultSet rs) throws SQLException {
        return new Account(
                rs.getLong("id"),
                rs.getString("name"),
                rs.getString("display"),
                rs.getString("password"),
                Role.valueOf(rs.getString("role")),
                rs.getBoolean("enabled"),
                rs.getBoolean("must_change"));
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
        checked(password, name);
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

    private static void checked(String password, String name) {
        if (password.length() < SHORTEST_PASSWORD) {
            throw new IllegalArgumentException(
                    "Password: expected at least " + SHORTEST_PASSWORD + " characters.");
        }
        if (password.getBytes(StandardCharsets.UTF_8).length > LONGEST_BYTES) {
            throw new IllegalArgumentException(
                    "Password: expected at most " + LONGEST_BYTES + " bytes.");
        }
        CommonPasswords.why(password, name)
                .ifPresent(
                        why -> {
                            throw new IllegalArgumentException(why);
                        });
    }

    /**
     * Changes one's own password.
     *
     * @throws IllegalArgumentException when the old one is wrong or the new one is not fit
     */
    public void change(String name, String old, String password) {
        Account account =
                byName(name)
                        .orElseThrow(
                                () -> new IllegalArgumentException("There is no such account."));
        if (!encoder.matches(old, account.password())) {
            throw new IllegalArgumentException("The present password is not that one.");
        }
        checked(password, name);
        if (encoder.matches(password, account.password())) {
            throw new IllegalArgumentException("The new password is the old one; choose another.");
        }
        db.sql("update account set password = ?, must_change = false where id = ?")
                .params(encoder.encode(password), account.id())
                .update();
        ended(account);
    }

    /**
     * Gives an account a password that is good for signing in and must be changed then.
     *
     * @return the password, to be handed over by word of mouth; empty when there is no such account
     */
    public Optional<String> reset(long id) {
        StringBuilder once = new StringBuilder();
        for (int i = 0; i < ONCE_LETTERS; i++) {
            once.append(LETTERS.charAt(RANDOM.nextInt(LETTERS.length())));
        }
        int changed =
                db.sql("update account set password = ?, must_change = true where id = ?")
                        .params(encoder.encode(once.toString()), id)
                        .update();
        byId(id).ifPresent(this::ended);
        return changed == 1 ? Optional.of(once.toString()) : Optional.empty();
    }

    public void enable(long id, boolean enabled) {
        db.sql("update account set enabled = ? where id = ?").params(enabled, id).update();
        if (!enabled) {
            byId(id).ifPresent(this::ended);
        }
    }

    private Optional<Account> byId(long id) {
        return db.sql("select * from account where id = ?")
                .param(id)
                .query((rs, n) -> account(rs))
                .optional();
    }

    private void ended(Account account) {
        events.publishEvent(new SignInsEnded(account.name()));
    }
}
