package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.demo.DemoLauncher;
import brightlantern.app.job.Repairs;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Setting;
import brightlantern.standin.Breaker;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import brightlantern.standin.network.WireFault;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.Part;
import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.Select;

/**
 * A part of a circuit is broken of which nobody wrote a word, and the card is followed: over the
 * wire, with the meter, and by looking at the vehicle.
 */
class WalkAnyWireTest {
    private static final int MOST_CHECKS = 14;

    @TempDir static Path data;

    private static Workshop shop;
    private static Technician tech;

    @BeforeAll
    static void open() throws Exception {
        shop = new Workshop(data);
        shop.signIn("tech");
        tech = new Technician(shop);
    }

    @AfterAll
    static void close() {
        shop.close();
    }

    private static Breaker.Broken broken(StandInVehicle v, String part) {
        Part.Failure failure =
                new Breaker(v)
                        .breakable().stream()
                                .filter(f -> f.of().equals(part) && !f.mode().equals("loose"))
                                .findFirst()
                                .orElseThrow();
        return new Breaker(v).breakPart(failure, 0.5, false).orElseThrow();
    }

    /** Does what the card says, as often as it says something that is a check. */
    private static List<String> follow(StandInVehicle v) {
        List<String> done = new ArrayList<>();
        for (int i = 0; i < MOST_CHECKS; i++) {
            String href = tech.next();
            if (href.contains("/probe/captures")) {
                cranked(v);
            } else if (href.contains("/probe")) {
                read(v, href);
            } else if (href.contains("#finding-")) {
                shop.go(href);
                String finding = href.substring(href.indexOf("#finding-") + 9);
                seen(v, URLDecoder.decode(finding, StandardCharsets.UTF_8));
            } else if (href.contains("/sweep")) {
                tech.sweep();
            } else {
                break;
            }
            done.add(href);
        }
        tech.stage("trace");
        return done;
    }

    private static void read(StandInVehicle v, String href) {
        Circuits circuits = v.simulation().circuits().orElseThrow();
        String condition = href.replaceAll(".*condition=nothing-?([^&#]*).*", "$1");
        if (!condition.isEmpty()) {
            circuits.set(condition, true);
        }
        shop.go(href);
        shop.press("#read");
        assertThat(shop.has(".error[role=alert]:not([hidden])")).as(href).isFalse();
        if (!condition.isEmpty()) {
            circuits.set(condition, false);
        }
    }

    /** Looks at the vehicle, and enters what is seen there. */
    private static void seen(StandInVehicle v, String finding) {
        Circuits circuits = v.simulation().circuits().orElseThrow();
        String form = "[id='finding-" + finding + "'] form";
        if (shop.has(form + " button[formaction]")) {
            shop.press(form + " button[formaction]");
            return;
        }
        if (circuits.hands().compared().containsKey(finding)) {
            double right = v.simulation().felt(circuits.hands().compared().get(finding).value());
            shop.type("[id='own-" + finding + "']", String.format(Locale.ROOT, "%.1f", right));
            shop.press("[id='finding-" + finding + "'] form:nth-of-type(2) button");
            return;
        }
        String value;
        if (circuits.hands().ohms().containsKey(finding)) {
            Gauge gauge = circuits.hands().ohms().get(finding);
            value = gauge.at(circuits.hands().ohms(gauge) / gauge.nominal()).id();
        } else if (finding.startsWith("move-")) {
            value = circuits.hands().jumps(finding.substring(5)) ? "jumps" : "steady";
        } else if (finding.startsWith("along-")) {
            value = circuits.hands().along(finding.substring(6)).id();
        } else if (finding.startsWith("behind-")) {
            value = circuits.hands().behind(finding.substring(7)).id();
        } else if (finding.startsWith("pins-")) {
            String pins = circuits.hands().pins(finding.substring(5));
            value = pins.startsWith("Pin ") ? pins.split(" ")[1] : "clean";
        } else {
            String label = shop.text(form + " label");
            String under = label.substring(label.lastIndexOf(", ") + 2);
            List<String> settings =
                    circuits.settings().values().stream()
                            .filter(s -> s.name().equals(under))
                            .map(s -> s.id())
                            .toList();
            settings.forEach(s -> circuits.set(s, true));
            String state =
                    circuits.seen().stream()
                            .filter(s -> label.startsWith(s.name() + ", "))
                            .map(Circuits.Seen::state)
                            .findFirst()
                            .orElseThrow();
            settings.forEach(s -> circuits.set(s, false));
            WebElement choice = shop.one(form + " select");
            value =
                    new Select(choice)
                            .getOptions().stream()
                                    .filter(o -> o.getText().equals(state))
                                    .map(o -> o.getDomAttribute("value"))
                                    .findFirst()
                                    .orElseThrow();
        }
        // the card takes an answer where there are few; a list of many stands on the page alone
        String answer = "#rail .answers button[value='" + value + "']";
        if (shop.has(answer)) {
            shop.press(answer);
        } else {
            shop.choose(form + " select", value);
            shop.press(form + " button:not([formaction])");
        }
    }

    private static Set<String> symptoms(Breaker.Broken broken) {
        return Set.copyOf(broken.symptoms());
    }

    @Test
    void aBadFuseOfTheReversingLampsIsFoundAndItsRepairProven() throws Exception {
        String address = "127.0.78.1";
        StandInVehicle v =
                DemoLauncher.start(shop.app, address, "oriel-heron", StandIns.AS_BUILT, 531);
        Breaker.Broken broken = broken(v, "F65");
        assertThat(broken.complaint()).contains("reversing lamp");
        tech.openJob(address, broken.complaint(), symptoms(broken));
        List<String> done = follow(v);
        assertThat(tech.known())
                .as("after %s", done)
                .startsWith("Fuse F65 10 A burnt is the cause");
        assertThat(done).anyMatch(d -> d.contains("/probe"));

        asked();
        tech.repaired("circuit-F65");
        assertThat(
                        shop.app
                                .getBean(Repairs.class)
                                .add(tech.job(), "circuit-F65", "again", "nobody", "tech"))
                .as("one that waits for its proof is not entered twice")
                .isFalse();
        assertThat(shop.text("#answer")).contains("still to be shown");
        repeated(v);
        tech.tried(true);
        tech.stage("prove");
        assertThat(shop.text("#answer")).as("nothing was mended").contains("did not hold");
        v.repair("repair-circuit-F65");
        repeated(v);
        tech.stage("prove");
        assertThat(shop.text("#answer")).as("%s", shop.text("main")).startsWith("Proven");
    }

    /** The customer sees the ways side by side, and what they say is kept. */
    private static void asked() {
        tech.stage("prove");
        shop.press("#to-customer");
        assertThat(shop.text("main")).contains("Replace the fuse box");
        shop.type("#by", "the owner");
        shop.press("#agreed");
        assertThat(shop.text(".error[role=alert]")).contains("Choose one of the ways");
        shop.click("[id='way-circuit-F65/0']");
        shop.type("#by", "the owner");
        shop.press("#agreed");
        assertThat(shop.text("#said")).contains("Agreed: ").contains("the owner, by telephone");
        tech.stage("prove");
        assertThat(shop.property("#authorised", "value")).isEqualTo("the owner");
    }

    /** All checks that failed, once more. */
    private static void repeated(StandInVehicle v) {
        tech.stage("prove");
        List<String> open =
                shop.browser.findElements(By.cssSelector("#proof tr[data-state] a")).stream()
                        .map(a -> a.getDomAttribute("href"))
                        .toList();
        for (String href : open) {
            if (href.contains("/probe")) {
                read(v, href);
            } else if (href.contains("#finding-")) {
                shop.go(href);
                seen(v, href.substring(href.indexOf("#finding-") + 9));
            }
        }
    }

    @Test
    void aSensorOfWhichOnlyACodeTellsIsFound() throws Exception {
        String address = "127.0.78.2";
        StandInVehicle v =
                DemoLauncher.start(shop.app, address, "quillon-ember", StandIns.AS_BUILT, 532);
        Breaker.Broken broken = broken(v, "W-oil-sensor");
        assertThat(broken.symptoms()).isEmpty();
        tech.openJob(address, broken.complaint(), Set.of());
        List<String> done = follow(v);
        assertThat(tech.known())
                .as("after %s", done)
                .startsWith(
                        "Wire green 0.5 chafed to earth, between Signal of oil temperature sensor, pin 1");
    }

    /** Nothing is open or short: the figure is wrong, and another instrument shows it. */
    @Test
    void aSensorThatLiesIsFoundStepByStep() throws Exception {
        String address = "127.0.78.6";
        StandInVehicle v =
                DemoLauncher.start(shop.app, address, "oriel-finch", StandIns.AS_BUILT, 536);
        Breaker breaker = new Breaker(v);
        Part.Failure lies =
                breaker.inCircuits().stream()
                        .filter(
                                f ->
                                        f.name()
                                                .contains(
                                                        "Oil temperature sensor tells wrong: too high"))
                        .findFirst()
                        .orElseThrow();
        Breaker.Broken broken = breaker.breakPart(lies, 0.5, false).orElseThrow();
        tech.openJob(address, broken.complaint(), Set.of());
        tech.sweep();
        shop.go("/jobs/" + tech.job() + "/probe?circuit=engine-temperatures");
        shop.press("#sensors a[href*='oil-sensor']");
        assertThat(shop.text("#culprit"))
                .isEqualTo("Nothing was done here yet: begin with the first step.");
        assertThat(shop.browser.findElements(By.cssSelector("#walk tbody tr"))).hasSize(8);

        shop.go("/jobs/" + tech.job() + "/probe?find=oil+sensor");
        shop.press("#found a[href*='/parts/']");
        assertThat(shop.text("#lost")).contains("Oil temperature sensor");
        shop.go("/jobs/" + tech.job() + "/probe/parts/none");
        assertThat(shop.text("main")).contains("has a part or connector 'none'");

        String finding = "gauge-oil-sensor-compared";
        shop.go("/jobs/" + tech.job() + "/trace");
        shop.one("[data-lines] > *");
        List<WebElement> lines = shop.browser.findElements(By.cssSelector("[data-lines] > *"));
        String find = "input[aria-label$='findings by hand']";
        shop.type(find, "oil temperature");
        assertThat(lines.stream().filter(WebElement::isDisplayed).toList())
                .hasSizeBetween(1, lines.size() - 1)
                .allSatisfy(l -> assertThat(l.getText()).containsIgnoringCase("oil temperature"));
        shop.type(find, "no such");
        shop.waitForText(find + " + p", "None is called so.");
        shop.go("/jobs/" + tech.job() + "/trace");
        shop.type("#own-" + finding, "warm");
        shop.press("#finding-" + finding + " form:nth-of-type(2) button");
        assertThat(shop.text(".error[role=alert]"))
                .contains("Your instrument: expected a number in °C")
                .contains("'warm'");
        seen(v, finding);
        assertThat(shop.text("#rail"))
                .containsPattern("by hand [\\d.]+ °C, its module tells [\\d.]+ °C: tells");
        follow(v);
        shop.go("/jobs/" + tech.job() + "/probe/sensors/oil-sensor");
        assertThat(shop.text("#culprit")).isEqualTo("The sensor lies.");
        shop.go("/jobs/" + tech.job() + "/probe?circuit=engine-temperatures");
        assertThat(shop.browser.findElements(By.cssSelector(".sheet-drawing .lit.likely")))
                .as("of all the sheet one part is left")
                .hasSize(1);
        assertThat(shop.text("#in-question")).startsWith("Lit: ");
        String whole = shop.attribute("#circuit", "viewBox");
        shop.click("[data-by=nearer]");
        assertThat(shop.attribute("#circuit", "viewBox")).isNotEqualTo(whole);
        shop.click("[data-by=whole]");
        assertThat(shop.attribute("#circuit", "viewBox")).isEqualTo(whole);
        shop.go("/jobs/" + tech.job() + "/probe/sensors/oil-sensor");
        assertThat(shop.text("#walk")).contains("tells").contains("too little");
    }

    /** Coil and injector by clamp, the count by wire, on one time line while it climbs. */
    @Test
    void whoLeavesFirstIsReadOnAClimb() throws Exception {
        String address = "127.0.78.7";
        StandInVehicle v =
                DemoLauncher.start(shop.app, address, "oriel-finch", StandIns.AS_BUILT, 537);
        Breaker.Broken broken = broken(v, "coil-hot-3");
        tech.openJob(address, broken.complaint(), symptoms(broken));
        tech.sweep();
        v.simulation().crank();
        // until it runs its module still tells what it counted on the journey before
        shop.until("counted anew", b -> v.simulation().running() && v.reading("misfires.3") < 5);
        shop.go("/jobs/" + tech.job() + "/probe/captures?plan=leaving");
        assertThat(shop.text("#connect"))
                .contains("current clamp round the feed of coil 3")
                .contains("its module is asked meanwhile");
        shop.press("#record");
        shop.waitForText("#recording", "Recording");
        v.simulation().driver(v.simulation().driver().drive(Driver.Program.CLIMB));
        shop.until("injector stopped", b -> v.reading("misfires.3") > 70);
        shop.press("#stop");
        shop.waitForText("#recording", "Recorded.");
        v.simulation().driver(v.simulation().driver().drive(Driver.Program.STAND));
        shop.press("#look");
        assertThat(shop.text("#read"))
                .startsWith("The coil left first, then count of misfires after")
                .contains("then injector current after");
        tech.stage("trace");
        assertThat(tech.known()).contains("Ignition coil 3 opens when it is hot");
    }

    /** One idles, and compares what the program says; a proof cannot be had for nothing. */
    @Test
    void anInjectorThatGivesTooLittleIsFoundAndWhatWasNotMendedIsNotProven() throws Exception {
        String address = "127.0.78.3";
        StandInVehicle v =
                DemoLauncher.start(shop.app, address, "velmont-cairn", StandIns.AS_BUILT, 533);
        Breaker.Broken broken = broken(v, "injector-4");
        assertThat(broken.symptoms()).containsExactly("shakes");
        tech.openJob(address, broken.complaint(), symptoms(broken));
        tech.sweep();
        assertThat(tech.next()).contains("watch?check=check-cylinders");
        idles(v);
        cranked(v);
        assertThat(shop.text("#read")).startsWith("Compression and gas exchange");
        // a fouled plug would show the same so far
        running(v);
        shop.go(nextCapture("sparks"));
        refusesWhatCannotBeSet(address);
        shop.type("#instrument", address + ":5026, " + address + ":5027");
        shop.press("#record");
        shop.waitForText("#recording", "Instrument 2 began +");
        shop.press("#look");
        assertThat(shop.text("#read")).isEqualTo("All sparks break over and burn alike.");
        assertThat(shop.text("#sparks")).containsPattern("(?s)1 .* kV.*6 .* kV");
        assertThat(tech.known()).startsWith("Injector of cylinder 4 gives too little is the cause");

        tech.repaired("injector-4");
        idles(v);
        tech.stage("prove");
        assertThat(shop.text("#answer")).as("nothing was mended").contains("did not hold");
        v.repair("injector-4");
        idles(v);
        tech.stage("prove");
        assertThat(shop.text("#proof"))
                .contains("With something still broken it would come out so in");
        assertThat(shop.text("#answer")).contains("still to be shown");
        whatIsMovedIsMarkedAndNamed(v);
    }

    /** A contact that comes and goes is recorded while its connector is moved, twice. */
    private static void whatIsMovedIsMarkedAndNamed(StandInVehicle v) {
        Circuits circuits = v.simulation().circuits().orElseThrow();
        v.simulation().driver(v.simulation().driver().key(2));
        circuits.settings().keySet().stream()
                .filter(s -> !Setting.unplugs(s))
                .forEach(s -> circuits.set(s, true));
        // the probe sits on the wire's side of a pin
        Segment loose =
                v.description().circuits().stream()
                        .flatMap(
                                c ->
                                        c.segments().stream()
                                                .filter(s -> c.point(s.from()).canBeProbed()))
                        .filter(s -> s.pin().isPresent() && flickers(circuits, s))
                        .findFirst()
                        .orElseThrow();
        String plug = loose.pin().orElseThrow().plug();
        shop.go("/jobs/" + tech.job() + "/probe/captures?plan=point-" + loose.from());
        shop.press("#record");
        shop.waitForText("#recording", "Recording: ");
        for (int i = 0; i < 2; i++) {
            shop.type("#now-words", plug);
            shop.click("#mark-now");
            // while it is marked, however long the page takes to say so
            circuits.move(plug, 2);
            shop.waitForText("#marked", "Marked '" + plug + "' at ");
            Garage.until("it rests", () -> circuits.flicker(loose.from()).isEmpty());
            long apart = System.nanoTime() + 4_000_000_000L;
            Garage.until("the marks lie apart", () -> System.nanoTime() > apart);
        }
        shop.waitForText("#recording", "Recorded.");
        shop.press("#look");
        assertThat(shop.text("#read")).endsWith("It goes with '" + plug + "'.");
        assertThat(shop.text("#rail")).contains("'" + plug + "': the volts jump, 2 of 2 times.");
    }

    /** Breaks it so that it shows at it while it is moved; mends it where it does not. */
    private static boolean flickers(Circuits circuits, Segment contact) {
        circuits.fail("loose", contact.id(), 1);
        circuits.move(contact.pin().orElseThrow().plug(), 1);
        double opens = circuits.flicker(contact.from()).orElse(Double.NaN);
        boolean shows = Math.abs(opens - circuits.volts(contact.from()).orElse(0)) > 0.5;
        if (!shows) {
            circuits.mend(contact.id());
        }
        return shows;
    }

    private static void refusesWhatCannotBeSet(String address) {
        shop.type("#instrument", address + ":5026, " + address + ":5026");
        shop.press("#record");
        assertThat(shop.text(".error")).contains(address + ":5026' is named twice");
        shop.type("#instrument", address + ":5026");
        shop.unfold("#otherwise");
        shop.type("#every", "often");
        shop.press("#record");
        assertThat(shop.text(".error")).contains("'often': expected a number from 0.05");
        // nothing is there; what its probe gives is remembered, and of this instrument alone
        shop.type("#instrument", address + ":9");
        shop.unfold("#otherwise");
        shop.type("#per-volt-1", "12,5");
        shop.press("#record");
        shop.waitForText("#recording", "No instrument answers");
        assertThat(shop.property("#per-volt-1", "value")).isEqualTo("12.5");
        shop.go(nextCapture("sparks"));
        assertThat(shop.property("#per-volt-1", "value")).isEmpty();
    }

    private static void running(StandInVehicle v) {
        v.simulation().driver(v.simulation().driver().key(2));
        v.simulation().crank();
        Garage.until("the engine", () -> v.simulation().running());
    }

    private static String nextCapture(String plan) {
        assertThat(tech.next()).contains("captures?plan=" + plan);
        return tech.next();
    }

    /** Follows the card to the oscilloscope, and cranks once it waits. */
    private static void cranked(StandInVehicle v) {
        shop.go(nextCapture("cranking"));
        v.simulation().driver(v.simulation().driver().drive(Driver.Program.STAND).key(0));
        v.simulation().driver(v.simulation().driver().key(2));
        shop.unfold("#healthy");
        assertThat(shop.text("#healthy"))
                .contains("Starting current")
                .contains("all of it: 0.96 s");
        shop.press("#record");
        shop.waitForText("#recording", "waits: crank now");
        v.simulation().act("crank-only");
        // as it comes in, or when it has: its page shows what was read once it ended
        shop.press("#recording a");
        shop.one("#capture[data-ready]:not([data-going])");
    }

    /** Its twin: the same complaint, and what is read in the lanes names the valve. */
    @Test
    void aValveThatLeaksIsReadInOneCranking() throws Exception {
        String address = "127.0.78.4";
        StandInVehicle v =
                DemoLauncher.start(shop.app, address, "stonebarrow-wl9", StandIns.AS_BUILT, 534);
        Breaker.Broken broken = broken(v, "valve-3");
        tech.openJob(address, broken.complaint(), symptoms(broken));
        tech.sweep();
        idles(v);
        cranked(v);
        assertThat(shop.text("#read")).startsWith("The exhaust valve of cylinder 3 leaks.");
        // still there once live values have come
        shop.until("live values", b -> shop.text("[data-head='supply']").matches("\\d.*V"));
        assertThat(shop.text("#signs tr.named")).startsWith("3").contains(" %");
        assertThat(tech.known()).startsWith("Exhaust valve of cylinder 3 leaks is the cause");
        String report = "/jobs/" + tech.job() + "/prove/report/file.pdf";
        assertThat(Papers.text(shop.paper(report)))
                .containsSubsequence(
                        "What was wrong", "One cranking: The exhaust valve of cylinder 3 leaks");

        measuredAndPutInOrder();

        // what is kept goes out, and comes in again as the same
        shop.go("/jobs/" + tech.job() + "/probe/captures");
        shop.press("#captures a");
        Path csv = data.resolve("lanes.csv");
        Files.writeString(
                csv,
                (String)
                        shop.browser.executeAsyncScript(
                                "fetch(location.pathname + '/lanes.csv').then(r => r.text()).then(arguments[0])"));
        assertThat(Files.readAllLines(csv)).hasSize(25_001);
        assertThat(
                        shop.browser.executeAsyncScript(
                                "Promise.all(['mf4', 'cff', 'wav', 'doc'].map(k =>"
                                        + " fetch(location.pathname + '/lanes.' + k).then(r => r.text())"
                                        + ".then(t => t.includes('expected csv, mf4') ? 'refused' : t.slice(0, 4))))"
                                        + ".then(arguments[0])"))
                .isEqualTo(List.of("MDF ", "--- ", "RIFF", "refused"));
        shop.go("/jobs/" + tech.job() + "/probe/captures");
        shop.send("#file", csv.toString());
        shop.press("#bring");
        assertThat(shop.text("#read")).isEqualTo("What happened between two readings?");
        shop.unfold("details:has(#role-0)");
        List<String> roles =
                List.of("STARTER_CURRENT", "INTAKE", "EXHAUST", "CRANKCASE", "FIRST_CYLINDER");
        for (int i = 0; i < roles.size(); i++) {
            shop.choose("#role-" + i, roles.get(i));
        }
        shop.press("#read-again");
        assertThat(shop.text("#read")).startsWith("The exhaust valve of cylinder 3 leaks.");

        laidUnderAndKeptApart();
        twoFilesAreOneRecord();
        currents(v);

        shop.go("/jobs/" + tech.job() + "/probe/captures");
        shop.type("#instrument", "nowhere");
        shop.press("#record");
        assertThat(shop.text(".error[role=alert]")).contains("'nowhere': expected host:port");
    }

    /** The one that was recorded under the one that came in, cycle by cycle. */
    private static void laidUnderAndKeptApart() {
        String recorded =
                (String)
                        shop.browser.executeScript(
                                "return document.querySelector('#beside option:last-child').value");
        shop.choose("#beside", recorded);
        shop.choose("#by", "ANGLE");
        shop.press("#lay");
        shop.waitForText("#laid", "cycle by cycle");
        shop.choose("#by", "ALIKE");
        shop.press("#lay");
        shop.waitForText("#laid", "Moved by +0.000 ms");
        shop.unfold("details:has(#aside)");
        shop.press("#aside");
        shop.go("/jobs/" + tech.job() + "/recordings");
        assertThat(shop.text("#recordings")).contains("One cranking").contains("kept apart");
    }

    /** Its injectors are no reason for it: each is told, and weighs. */
    private static void currents(StandInVehicle v) {
        running(v);
        shop.go("/jobs/" + tech.job() + "/probe/captures?plan=currents");
        shop.press("#record");
        shop.press("#look");
        assertThat(shop.text("#read")).isEqualTo("All draw what they should, one like the other.");
        assertThat(shop.text("#currents"))
                .containsPattern("(?s)Injector 1 1\\.1\\d A.*Injector 6 1\\.1\\d A");
        assertThat(shop.text("#rail"))
                .containsPattern("Currents of injectors: Injector 6 draws 1.1\\d A in the end");
    }

    private static void twoFilesAreOneRecord() throws IOException {
        Path cfg = data.resolve("relay.cfg");
        Path dat = data.resolve("relay.dat");
        Files.writeString(
                cfg,
                "YARD,7\n1,1A,0D\n1,Coil,,,A,0.1,0,0,-99,99\n50\n1\n100,4\n"
                        + "04/03/26,05:06:07.0\n04/03/26,05:06:07.0\nASCII\n");
        Files.writeString(dat, "1,0,0\n2,10000,20\n3,20000,35\n4,30000,35\n");
        shop.go("/jobs/" + tech.job() + "/probe/captures");
        shop.send("#file", dat + "\n" + cfg);
        shop.press("#bring");
        assertThat(shop.text("main")).contains("1 lane, 40 ms, 100 samples a second");
    }

    /** From a pinned line to another, by keys; a lane that goes up, smoothed; and a mark. */
    private static void measuredAndPutInOrder() {
        shop.one("#capture[data-ready]");
        WebElement drawing = shop.one("#drawing");
        drawing.sendKeys(".", "p", ".", ".");
        // two hundredths of five seconds
        assertThat(shop.text("#cursor"))
                .startsWith("from the pinned line 100.0")
                .contains("10.0 Hz");
        drawing.sendKeys(Keys.ESCAPE);
        assertThat(shop.text("#cursor")).contains("after the dead centre of cylinder 1");
        shop.unfold("#lanes");
        shop.click("#switches [aria-label='Intake pulls: further up']");
        assertThat(shop.text("#switches > :first-child")).contains("Intake pulls");
        shop.choose("#switches [aria-label='Intake pulls: smoothed']", "25");
        drawing.sendKeys("m");
        shop.type("#mark-words", "the connector was moved");
        shop.press("#mark-form button");
        assertThat(shop.text("#marks")).contains("the connector was moved");
        shop.one("#capture[data-ready]");
        shop.type("#mark-at", "1e9");
        shop.type("#mark-words", "later than its end");
        shop.press("#mark-form button");
        assertThat(shop.text(".error[role=alert]")).contains("expected seconds from 0 to");
        shop.press("#marks form button");
        assertThat(shop.has("#marks")).isFalse();
    }

    /**
     * All modules are silent, whatever it is; the levels at both ends tell a break from a short.
     */
    @Test
    void aWireOfTheNetworkIsReadAtBothItsEnds() throws Exception {
        String address = "127.0.78.5";
        StandInVehicle v =
                DemoLauncher.start(shop.app, address, "oriel-heron", StandIns.AS_BUILT, 535);
        v.wires()
                .add(
                        new WireFault.Broken(
                                "gap-drive-1",
                                "drive",
                                0,
                                WireFault.Wire.LOW,
                                5000,
                                Double.POSITIVE_INFINITY,
                                0));
        tech.openJob(address, "A warning came up.", Set.of());
        v.simulation().driver(Driver.away().key(2));
        tech.sweep();
        assertThat(tech.known()).doesNotStartWith("Drive bus wire broken");
        assertThat(tech.next()).endsWith("#finding-wires-drive");
        tech.stage("trace");
        shop.type("#meter-reads", "60");
        shop.press("#keep-reading");
        assertThat(shop.text(".error[role=alert]"))
                .contains("'60' was not kept: the vehicle says that its key is on.");
        v.simulation().driver(Driver.away().key(0));
        shop.waitForText("[data-head=ignition]", "off");
        shop.type("#meter-reads", "some");
        shop.press("#keep-reading");
        assertThat(shop.text(".error[role=alert]"))
                .isEqualTo(
                        "Your meter: expected a number in Ω, such as 1200 or 1.2 kΩ, found 'some'.");
        Matcher read = Pattern.compile("([\\d.]+) Ω").matcher(v.tools().measure("wires-drive"));
        assertThat(read.find()).isTrue();
        shop.press("#let-it-read");
        assertThat(shop.text("#rail")).containsPattern("the meter reads 1[12]\\d Ω, about 120 Ω");
        double ohms = Double.parseDouble(read.group(1));
        assertThat(ohms).as("typed it would have been").isBetween(110.0, 130.0);
        v.simulation().driver(Driver.away().key(2));
        clampedAndOff(v);
        shop.go("/jobs/" + tech.job() + "/probe/captures?plan=bus-drive");
        shop.press("#record");
        shop.press("#look");
        assertThat(shop.text("#read"))
                .isEqualTo(
                        "Drive bus: The low wire is broken or has a bad contact between Gateway and Engine.");
        assertThat(shop.text("#stations")).contains("lost on the way");
        assertThat(tech.known())
                .startsWith("Drive bus wire broken, Gateway to Engine is the cause");
    }

    /** A clamp that reads nothing may only say that nothing is on. */
    private static void clampedAndOff(StandInVehicle v) {
        String read =
                "const f = document.createElement('form'); f.method = 'post';"
                        + " f.action = location.pathname + '/measured';"
                        + " f.innerHTML = \"<input name=finding value=gauge-wiper-motor-amps>"
                        + "<input name=by value=meter>\";"
                        + " f.append(document.querySelector('[name=_csrf]').cloneNode());"
                        + " document.body.append(f); f.submit()";
        tech.stage("trace");
        shop.browser.executeScript(read);
        assertThat(shop.text(".error[role=alert]"))
                .startsWith("The clamp reads nothing, which was not kept")
                .contains("wiper on");
        v.simulation().circuits().orElseThrow().set("K66-on", true);
        shop.browser.executeScript(read);
        shop.waitForText("#rail", "by a clamp round its wire, wiper on: the meter reads");
        v.simulation().circuits().orElseThrow().set("K66-on", false);
        assertThat(shop.text("#rail")).containsPattern("reads \\d[.\\d]* A, about");
    }

    private static void idles(StandInVehicle v) {
        v.simulation().crank();
        tech.record(18);
    }
}
