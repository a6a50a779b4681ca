package brightlantern.app;

import java.util.List;
import java.util.Set;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;

/**
 * What a technician does, through the page alone: opens jobs, does the proposed checks, repairs and
 * proves.
 */
final class Technician {
    private final Workshop shop;
    private long job;

    Technician(Workshop shop) {
        this.shop = shop;
    }

    long job() {
        return job;
    }

    void openJob(String address, String complaint, Set<String> symptoms) {
        shop.go("/jobs/new?address=" + address);
        shop.until(
                "the vehicle at " + address,
                b -> {
                    for (WebElement row : b.findElements(By.cssSelector("tbody tr"))) {
                        if (row.getText().contains(address + " ")
                                || row.getText().contains(address + "\n")) {
                            row.findElement(By.cssSelector("a.btn")).click();
                            return true;
                        }
                    }
                    return null;
                });
        shop.type("#complaint", complaint);
        // systems that are folded are opened first
        shop.browser.executeScript(
                "document.querySelectorAll('fieldset details').forEach(d => d.open = true)");
        symptoms.forEach(s -> shop.click("[id='s-" + s + "']"));
        shop.press("form.sheet button.btn-do");
        shop.waitForText(".answer", complaint);
        job = Long.parseLong(shop.path().split("/")[2]);
    }

    void stage(String stage) {
        shop.go("/jobs/" + job + "/" + stage);
    }

    void sweep() {
        stage("sweep");
        int before = findings();
        shop.press("#start");
        shop.until(
                "the sweep's end",
                b -> shop.has("#clear") && !shop.has("#stop") && findings() > before);
    }

    /**
     * How many findings are kept; read from the story in Trace by the browser's own fetch, so that
     * the page stays.
     */
    private int findings() {
        Object count =
                shop.browser.executeAsyncScript(
                        "const done = arguments[0]; fetch('/jobs/"
                                + job
                                + "/trace').then(r => r.text()).then(t =>"
                                + " done(new DOMParser().parseFromString(t, 'text/html').querySelectorAll('details.sheet tbody tr')"
                                + ".length))");
        return ((Number) count).intValue();
    }

    String known() {
        return shop.text("#rail strong");
    }

    boolean accused() {
        return known().contains("is the cause");
    }

    /**
     * Where the card leads; read by the browser's own fetch, so that the page stays and nothing is
     * drawn for it.
     */
    String next() {
        Object href =
                shop.browser.executeAsyncScript(
                        "const done = arguments[0]; fetch('/jobs/"
                                + job
                                + "/trace').then(r => r.text()).then(t =>"
                                + " done(new DOMParser().parseFromString(t, 'text/html')"
                                + ".querySelector('#rail [data-next]')?.getAttribute('href') ?? ''))");
        return href.toString();
    }

    /** Does the check that the rail proposes, and says which it was. */
    String nextCheck() {
        if (!shop.path().endsWith("/trace")) {
            stage("trace");
        }
        WebElement next = shop.one("#rail [data-next]");
        String name = next.getText();
        next.click();
        if (name.equals("Drive the vane actuator")) {
            run("vane");
        } else if (name.equals("Drive the intake throttle")) {
            run("throttle");
        } else if (name.equals("Record a climb")) {
            climb();
        } else if (name.startsWith("Compare boost")) {
            shop.click("#agree-pressures-at-rest");
            shop.waitForText("#rail", "Boost pressure against ambient pressure");
        } else if (name.startsWith("Smoke")) {
            shop.choose("#f-smoke", "none");
            shop.one("#f-smoke").submit();
            shop.waitForText("#rail", "no smoke leaves");
        } else {
            // the page has the condition set that the check wants
            readAsSet();
        }
        return name;
    }

    /**
     * Drives an actuator until it is judged; a run that was cut short is done again, as it asks.
     */
    void run(String actuator) {
        for (int attempt = 0; attempt < 3; attempt++) {
            stage("exercise");
            coolDown(actuator);
            shop.until("open gates", b -> shop.one("#run-" + actuator).isEnabled());
            shop.press("#run-" + actuator);
            shop.until("the end of the run of " + actuator, b -> shop.has("#ended"));
            if (shop.has("#verdicts")) {
                return;
            }
        }
        throw new AssertionError(actuator + " was never judged: " + shop.text("#run"));
    }

    /** Waits until a roll call that is shown has asked some module so often. */
    void calls(int least) {
        shop.until(
                "calls",
                b ->
                        b.findElements(By.cssSelector("#modules td[data-calls]")).stream()
                                .map(WebElement::getText)
                                .filter(t -> t.contains(" of "))
                                .anyMatch(
                                        t ->
                                                Integer.parseInt(t.substring(t.indexOf("of ") + 3))
                                                        >= least));
    }

    void probe(String point, String condition) {
        shop.go("/jobs/" + job + "/probe?point=" + point);
        read(condition);
    }

    private void read(String condition) {
        shop.one("#" + condition);
        shop.click("#" + condition);
        readAsSet();
    }

    private void readAsSet() {
        shop.one("#read");
        int before = shop.browser.findElements(By.cssSelector("#readings tbody tr")).size();
        shop.click("#read");
        shop.until(
                "the reading",
                b ->
                        b.findElements(
                                                By.cssSelector(
                                                        "#readings tbody tr, .error[role=alert]:not([hidden])"))
                                        .size()
                                > before);
    }

    void seat(String address, String... clicks) {
        shop.go("/seat/" + address);
        for (String click : clicks) {
            shop.press("#" + click);
        }
    }

    void workshopDoes(String address, String repair) {
        shop.go("/seat/" + address + "?find=" + repair);
        shop.choose("#repair", repair);
        shop.press("#do-repair");
        shop.waitForText(".notice", "The workshop did it");
    }

    void keyOffAndOn(String address) {
        seat(address, "key-off");
        stage("prove");
        shop.waitForText("[data-head=ignition]", "off");
        seat(address, "key-on");
        stage("prove");
        shop.until("key on", b -> shop.text("[data-head=ignition]").equals("on"));
    }

    private String address = "";

    void drives(String where) {
        address = where;
    }

    /** Warms up on the hill in hurried time, then records a stretch of it in real time. */
    void climb() {
        seat(address, "key-on", "crank");
        shop.waitForText("#d-engine", "running");
        hurry(5);
        shop.press("#drive-CLIMB");
        shop.until("speed on the hill", b -> Integer.parseInt(shop.text("#d-speed")) > 55);
        hurry(1);
        stage("watch");
        shop.press("#take-start");
        shop.one("#take-stop");
        shop.click("#mark");
        shop.waitForText("#mark", "Marked");
        shop.until(
                "half a minute of the hill",
                b -> {
                    Object seconds =
                            b.executeScript(
                                    "const t = performance.now() / 1000; window.begun ??= t; return t - window.begun > 30;");
                    return Boolean.TRUE.equals(seconds) ? true : null;
                });
        // the page ticks off what is enough by now
        shop.one("#ticks tr[data-done=true]");
        shop.press("#take-stop");
        shop.one("#take");
        seat(address, "drive-STAND");
        hurry(5);
        shop.until("standing still", b -> Integer.parseInt(shop.text("#d-speed")) == 0);
        hurry(1);
        seat(address, "key-off", "key-on");
        stage("trace");
        shop.until("key on", b -> shop.text("[data-head=ignition]").equals("on"));
    }

    /** A hot turbo shuts the gate; what takes minutes is hurried. */
    void coolDown(String actuator) {
        shop.until(
                "gates that open, or a hot turbo",
                b ->
                        shop.one("#run-" + actuator).isEnabled()
                                || shop.text("#gates-" + actuator).contains("cool down"));
        if (shop.one("#run-" + actuator).isEnabled()) {
            return;
        }
        seat(address);
        hurry(20);
        stage("exercise");
        shop.until("a cool turbo", b -> shop.one("#run-" + actuator).isEnabled());
        seat(address);
        hurry(1);
        stage("exercise");
    }

    private void hurry(int factor) {
        shop.choose("#factor", String.valueOf(factor));
        shop.press("#hurry");
    }

    /** Takes the readings again that a proof still asks for. */
    void repeatReadings() {
        stage("prove");
        List<String> open =
                shop
                        .browser
                        .findElements(By.cssSelector("#proof tr[data-state=OPEN] a[href*=probe]"))
                        .stream()
                        .map(a -> a.getDomAttribute("href"))
                        .toList();
        for (String where : open) {
            shop.go(where);
            read(shop.attribute("input[name=condition]:checked", "id"));
        }
    }

    /** Records something for so long, whatever the vehicle does meanwhile. */
    void record(int seconds) {
        stage("watch");
        shop.press("#take-start");
        shop.one("#take-stop");
        shop.until(
                "a take of " + seconds + " s",
                b ->
                        Boolean.TRUE.equals(
                                        b.executeScript(
                                                "const t = performance.now() / 1000; window.begun ??= t; return t - window.begun > "
                                                        + seconds
                                                        + ";"))
                                ? true
                                : null);
        shop.press("#take-stop");
        shop.one("#take");
    }

    /** Says what became of the complaint when it was tried again. */
    void tried(boolean gone) {
        stage("prove");
        shop.type("#how", "washed the sill, drove through a puddle");
        shop.choose("select[name=gone]", String.valueOf(gone));
        shop.press("#complaint-told");
    }

    void repaired(String suspect) {
        stage("prove");
        shop.browser.executeScript(
                "document.querySelectorAll('#work details').forEach(d => d.open = true)");
        shop.click("[id='o-" + suspect + "']");
        shop.type("#authorised", "the customer, by phone");
        shop.press("#repair");
        shop.one("#proof");
    }

    void clearAll() {
        clearAll("Cleared 14 of 14");
    }

    void clearAll(String notice) {
        stage("sweep");
        shop.press("#clear");
        shop.type("#why", "begin of the proof");
        shop.press("#clear-now");
        shop.waitForText(".notice", notice);
    }
}
