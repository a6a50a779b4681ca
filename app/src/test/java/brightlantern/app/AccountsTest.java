package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.app.account.Accounts;
import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Takes;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Accounts through the page, and what the database keeps. */
class AccountsTest {
    @TempDir static Path data;

    private static Workshop shop;

    @BeforeAll
    static void open() throws Exception {
        shop = new Workshop(data);
        shop.app
                .getBean(Accounts.class)
                .add("admin", "Administrator", Workshop.PASSWORD, Accounts.Role.ADMINISTRATOR);
    }

    @AfterAll
    static void close() {
        shop.close();
    }

    private void add(String name, String password) {
        shop.go("/accounts");
        shop.type("#name", name);
        shop.type("#display", "Somebody");
        shop.type("#password", password);
        shop.click("form.row button.btn-do");
    }

    /** A copy is made while work goes on, comes back into an empty folder, and into no other. */
    @Test
    void dataAreCopiedAndBroughtBack(@TempDir Path other) throws Exception {
        shop.signIn("admin");
        shop.go("/accounts");
        shop.press("#backup");
        assertThat(shop.text(".notice")).contains("Copied to ").contains("--restore=FILE");
        Path copy;
        try (Stream<Path> files = Files.list(data)) {
            copy =
                    files.filter(f -> f.getFileName().toString().startsWith("lantern.backup-"))
                            .findFirst()
                            .orElseThrow();
        }
        assertThat(Restore.into(other, copy)).isEqualTo(shop.app.getBean(Jobs.class).all().size());
        assertThatThrownBy(() -> Restore.into(other, copy))
                .hasMessageContaining("holds a database already");
        Path empty = Files.createDirectory(other.resolve("empty"));
        Path torn = other.resolve("torn.zip");
        Files.write(torn, Arrays.copyOf(Files.readAllBytes(copy), 2000));
        assertThatThrownBy(() -> Restore.into(empty, torn))
                .hasMessageContaining("is no copy of a database");
        assertThat(empty).isEmptyDirectory();
        shop.go("/accounts");
    }

    @Test
    void anAdministratorMakesAndShutsAccounts() {
        shop.signIn("admin");
        add("Big Name", "long-enough");
        shop.waitForText(".error", "Name 'Big Name': expected 2 to 40 small letters");
        add("newcomer", "short");
        shop.waitForText(".error", "Password: expected at least 8 characters");
        add("newcomer", Workshop.PASSWORD);
        shop.waitForText(".notice", "Account newcomer was made");
        add("newcomer", Workshop.PASSWORD);
        shop.waitForText(".error", "Name 'newcomer' is taken");
        Accounts accounts = shop.app.getBean(Accounts.class);
        assertThat(accounts.byName("newcomer").orElseThrow().password())
                .startsWith("$2")
                .doesNotContain(Workshop.PASSWORD);

        long self = accounts.byName("admin").orElseThrow().id();
        shop.go("/accounts");
        shop.click("form[action='/accounts/" + self + "/enabled'] button");
        shop.waitForText(".error", "Nobody can shut out themselves");
        long other = accounts.byName("newcomer").orElseThrow().id();
        shop.click("form[action='/accounts/" + other + "/enabled'] button");
        shop.until("shut", b -> !accounts.byName("newcomer").orElseThrow().enabled());
        shop.browser.manage().deleteAllCookies();
        shop.go("/sign-in");
        shop.type("#username", "newcomer");
        shop.type("#password", Workshop.PASSWORD);
        shop.click("section button.btn-do");
        shop.waitForText(".error", "Name or password is wrong, or the account is shut");
    }

    @Test
    void aForgottenPasswordIsReplacedByOneForOnceAndThenByAnOwn() {
        Accounts accounts = shop.app.getBean(Accounts.class);
        accounts.add("forgetful", "Forgetful", Workshop.PASSWORD, Accounts.Role.TECHNICIAN);
        if (accounts.byName("chief").isEmpty()) {
            accounts.add("chief", "Chief", Workshop.PASSWORD, Accounts.Role.ADMINISTRATOR);
        }
        shop.browser.manage().deleteAllCookies();
        shop.signIn("chief");
        shop.go("/accounts");
        shop.press("#reset-forgetful");
        String once = shop.text("#once");
        assertThat(once).hasSize(12);
        shop.browser.manage().deleteAllCookies();
        shop.go("/sign-in");
        shop.type("#username", "forgetful");
        shop.type("#password", once);
        shop.press("section button.btn-do");
        shop.waitForText(".answer", "Choose a password of your own first");
        shop.go("/shelf");
        shop.waitForText(".answer", "Choose a password of your own first");
        change(once, "short");
        shop.waitForText(".error", "at least 8 characters");
        change("not-that-one", "quite-a-new-one");
        shop.waitForText(".error", "not that one");
        change(once, "quite-a-new-one");
        shop.waitForText(".notice", "holds from now on");
        shop.go("/");
        shop.one("[href='/jobs/new']");
    }

    @Test
    void whatIsChangedInAnAccountHoldsAtOnce() throws Exception {
        Accounts accounts = shop.app.getBean(Accounts.class);
        for (String name : List.of("shut", "promoted", "renewed")) {
            accounts.add(name, name, Workshop.PASSWORD, Accounts.Role.TECHNICIAN);
            Visitor visitor = new Visitor(Garage.address(shop.app));
            visitor.signIn(name, Workshop.PASSWORD);
            assertThat(visitor.get("/shelf")).contains("Sign out");
            long id = accounts.byName(name).orElseThrow().id();
            switch (name) {
                case "shut" -> accounts.enable(id, false);
                case "promoted" ->
                        shop.app
                                .getBean(JdbcClient.class)
                                .sql("update account set role = 'ONLOOKER' where id = ?")
                                .param(id)
                                .update();
                default -> accounts.change(name, Workshop.PASSWORD, "quite-another-one");
            }
            assertThat(visitor.get("/shelf")).contains("Your sign-in has ended");
            assertThat(visitor.get("/shelf")).doesNotContain("Sign out");
        }
    }

    @Test
    void anOpenPageOfAShutAccountGoesToTheSignIn() throws Exception {
        Accounts accounts = shop.app.getBean(Accounts.class);
        accounts.add("onlooker", "Onlooker", Workshop.PASSWORD, Accounts.Role.ONLOOKER);
        long job = job();
        shop.browser.manage().deleteAllCookies();
        shop.signIn("onlooker");
        shop.go("/jobs/" + job + "/trace");
        shop.until("the stream", b -> shop.text("#rail") != null);
        accounts.enable(accounts.byName("onlooker").orElseThrow().id(), false);
        shop.waitForText(".notice", "Your sign-in has ended");
    }

    @Test
    void passwordsCannotBeTriedInARow() throws Exception {
        shop.app
                .getBean(Accounts.class)
                .add("tried", "Tried", Workshop.PASSWORD, Accounts.Role.TECHNICIAN);
        Visitor visitor = new Visitor(Garage.address(shop.app));
        Map<String, String> wrong = Map.of("username", "tried", "password", "not-that-one");
        for (int i = 0; i < 5; i++) {
            assertThat(visitor.post("/sign-in", "/sign-in", wrong)).contains("password is wrong");
        }
        assertThat(visitor.post("/sign-in", "/sign-in", wrong))
                .contains("Too many wrong passwords");
        TimeUnit.MILLISECONDS.sleep(1100);
        visitor.signIn("tried", Workshop.PASSWORD);
        assertThat(visitor.get("/shelf")).contains("Sign out");
    }

    @Test
    void whatIsTooLongIsToldOrKeptShorterAndNeverLost() throws Exception {
        Job job = shop.app.getBean(Jobs.class).byId(job()).orElseThrow();
        CommandLog log = shop.app.getBean(CommandLog.class);
        log.add(
                job,
                "tech",
                CommandLog.OUTPUT,
                "w".repeat(60_000),
                "y".repeat(600),
                "7F ".repeat(60_000));
        CommandLog.Line kept = log.newest(1).get(0);
        assertThat(List.of(kept.what(), kept.why(), kept.answer()))
                .allSatisfy(text -> assertThat(text).endsWith("characters left out)"));

        Visitor visitor = new Visitor(Garage.address(shop.app));
        visitor.signIn("tech", Workshop.PASSWORD);
        String told =
                visitor.send(
                        visitor.token("/shelf"),
                        "/jobs",
                        Map.of(
                                "address", "127.0.9.9",
                                "vin", job.vin(),
                                "complaint", "c".repeat(4001),
                                "odometer", "1000",
                                "earlier", ""));
        assertThat(told).contains("Complaint: expected at most 4000 characters, found 4001.");
    }

    private static void change(String old, String password) {
        shop.type("#old", old);
        shop.browser.executeScript(
                "document.querySelectorAll('[minlength]').forEach(f => f.removeAttribute('minlength'))");
        shop.type("#password", password);
        shop.type("#again", password);
        shop.press("#change");
    }

    @Test
    void jobsAreFoundByPlateVinAndWord() {
        long id = job();
        shop.browser.manage().deleteAllCookies();
        shop.signIn("tech");
        for (String word : List.of("TPG22D2M", "ö,", String.valueOf(id))) {
            shop.go("/");
            shop.type("#find", word);
            shop.press("#find-jobs");
            assertThat(shop.text("#jobs")).contains("a complaint with ö");
        }
        shop.type("#find", "no such word");
        shop.press("#find-jobs");
        shop.waitForText(".answer", "No job fits");
    }

    @Test
    void thePolicyIsStrictAndTheThemeIsKept() {
        shop.browser.manage().deleteAllCookies();
        shop.signIn("lead");
        Object policy =
                shop.browser.executeAsyncScript(
                        "const done = arguments[0]; fetch('/').then(r => done(r.headers.get('Content-Security-Policy')))");
        assertThat((String) policy)
                .contains("script-src 'self'")
                .doesNotContain("unsafe-inline")
                .doesNotContain("unsafe-eval");
        assertThat(shop.attribute("html", "data-bs-theme")).isEqualTo("light");
        shop.go("/?find=x&sort=oldest");
        shop.click("form[action='/theme'] button");
        shop.one("html[data-bs-theme=dark]");
        // the page keeps its parameters
        assertThat(shop.path()).isEqualTo("/?find=x&sort=oldest");
        shop.go("/shelf");
        shop.one("html[data-bs-theme=dark]");
        shop.go("/jobs/9999/intake");
        shop.waitForText("main", "There is no");
    }

    private static long job() {
        return shop.app
                .getBean(Jobs.class)
                .add(
                        new Job(
                                0,
                                Instant.now(),
                                Optional.empty(),
                                "tech",
                                "tamarack-portage",
                                "ZZTPG22D2M1000417",
                                "127.0.75.1",
                                "127.0.75.1:5025",
                                "a complaint with ö, ', \" and <b>",
                                Set.of("flat-on-climbs", "whistle"),
                                84_211.5,
                                ""));
    }

    @Test
    void jobsAndEvidenceComeBackAsTheyWent() {
        long id = job();
        Job job = shop.app.getBean(Jobs.class).byId(id).orElseThrow();
        assertThat(job.complaint()).contains("ö, ', \" and <b>");
        assertThat(job.symptoms()).containsExactlyInAnyOrder("flat-on-climbs", "whistle");
        Findings findings = shop.app.getBean(Findings.class);
        List<Evidence> kinds =
                List.of(
                        new Evidence.SymptomTold("whistle"),
                        new Evidence.CodeSeen("P0299-00", true),
                        new Evidence.Outcome("climb", "short"),
                        new Evidence.Run("vane", List.of("vane"), -1, 0.01, 12.4, false),
                        new Evidence.Reading(
                                "air-actuators", "G12", "bulb", List.of(), 3.2, 12.4, false),
                        new Evidence.RepairFailed("vane-actuator"),
                        new Evidence.RuledOut("turbo-worn", "no play in the shaft"));
        kinds.forEach(
                e ->
                        findings.add(
                                id, "trace", "tech", "x", Optional.of(true), Optional.of(e), null));
        assertThat(findings.of(id))
                .extracting(f -> f.evidence().orElseThrow())
                .containsExactlyElementsOf(kinds);
    }

    @Test
    void aTakeThatWasNeverEndedKeepsWhatItHad() {
        Takes takes = shop.app.getBean(Takes.class);
        long take = takes.start(job(), "take 1", Instant.now(), "");
        for (int second = 0; second < 3; second++) {
            takes.append(
                    take,
                    second,
                    Map.of(
                            "boost.actual",
                            new Take.Column(
                                    new double[] {second, second + 0.5}, new double[] {100, 101})),
                    v -> Optional.empty());
        }
        takes.mark(take, 1.25, "hill");
        Take read = takes.read(take);
        assertThat(read.columns().get("boost.actual").size()).isEqualTo(6);
        assertThat(read.lengthSeconds()).isEqualTo(2.5);
        assertThat(read.marks()).containsExactly(new Take.Mark(1.25, "hill"));
        assertThatThrownBy(() -> takes.append(take, 0, Map.of(), v -> Optional.empty()))
                .isInstanceOf(RuntimeException.class);
    }
}
