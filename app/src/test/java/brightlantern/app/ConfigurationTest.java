package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import brightlantern.standin.module.UdsModule.Behaviour;
import brightlantern.standin.plant.Driver;
import java.net.InetAddress;
import java.nio.file.Path;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What modules are told: trim codes, a new module, and all that may go wrong meanwhile. */
class ConfigurationTest {
    private static final String ADDRESS = "127.0.81.2";

    @TempDir static Path data;
    private static Garage garage;
    private static Visitor lead;
    private StandInVehicle van;

    private long job;

    @BeforeAll
    static void open() throws Exception {
        garage = new Garage(data);
        lead = garage.visitor("lead");
    }

    @AfterAll
    static void close() {
        garage.close();
    }

    @AfterEach
    void leave() {
        van.close();
    }

    /** A van of its own for each: what one writes is no business of the next. */
    @BeforeEach
    void begin() throws Exception {
        van =
                StandIns.open(
                        Shipped.vehicle("tamarack-portage"),
                        InetAddress.getByName(ADDRESS),
                        StandIns.AS_BUILT,
                        481);
        van.driver(Driver.away().key(2));
        job = garage.job(van, ADDRESS, Set.of());
    }

    private String page(String configuration) {
        return "/jobs/" + job + "/exercise/configurations/" + configuration;
    }

    private String compared(String typed) throws Exception {
        return lead.post(page("trims"), page("trims") + "/compare", Map.of("i.trim-2", typed));
    }

    private static String hidden(String html, String name) {
        Matcher field =
                Pattern.compile("name=\"" + Pattern.quote(name) + "\"\\s+value=\"([0-9A-F]+)\"")
                        .matcher(html);
        assertThat(field.find()).as(html).isTrue();
        return field.group(1);
    }

    private String write(String agree) throws Exception {
        return lead.post(
                page("trims"),
                page("trims") + "/write",
                Map.of(
                        "before.trim-2", hidden(agree, "before.trim-2"),
                        "after.trim-2", hidden(agree, "after.trim-2")));
    }

    @Test
    void aTrimCodeIsCheckedComparedWrittenReadBackAndTakenBack() throws Exception {
        assertThat(compared("QMXWYDD"))
                .contains("Injector 2: the check character &#39;D&#39; does not belong")
                .contains("value=\"QMXWYDD\"");
        String agree = compared("222 222-2");
        assertThat(agree).contains("write this?").contains("2222222");
        assertThat(write(agree)).contains("Written, read back, and the same.");
        assertThat(lead.get("/log")).contains("Injector 2: 2222222 instead of");
        assertThat(
                        lead.post(
                                page("trims"),
                                page("trims") + "/write",
                                Map.of("before.trim-2", "00", "after.trim-2", "no bytes")))
                .contains("Injector 2: expected 4 bytes in hexadecimal digits, found");
        // what was shown as before is no more: somebody was quicker
        assertThat(write(agree)).contains("Injector 2 was changed meanwhile; nothing was written");
        Matcher written =
                Pattern.compile("name=\"write\" value=\"(\\d+)\"").matcher(lead.get(page("trims")));
        assertThat(written.find()).isTrue();
        String undo =
                lead.post(
                        page("trims"), page("trims") + "/undo", Map.of("write", written.group(1)));
        assertThat(hidden(undo, "after.trim-2")).isEqualTo(hidden(agree, "before.trim-2"));
        assertThat(write(undo)).contains("Written, read back, and the same.");
        assertThat(
                        lead.post(
                                page("trims"),
                                page("trims") + "/undo",
                                Map.of("write", written.group(1))))
                .contains("already holds what it held before");
    }

    @Test
    void aShutGateAndARoleForbidWriting() throws Exception {
        String agree = compared("222 222-2");
        Visitor tech = garage.visitor("tech");
        assertThat(tech.post(page("trims"), page("trims") + "/write", Map.of()))
                .contains("Your role may not do this");
        String replace = "/jobs/" + job + "/exercise/procedures/replace-trailer";
        assertThat(tech.post(replace, replace, Map.of())).contains("that is for a lead technician");
        String check = "/jobs/" + job + "/exercise/procedures/self-check-trailer";
        assertThat(tech.post(check, check, Map.of("then", "replace-trailer")))
                .as("no way round")
                .contains("Only self-checks follow one another");
        Visitor guest = garage.visitor("guest");
        assertThat(guest.get(page("trims"))).contains("Injector 2");
        String drive = "/jobs/" + job + "/exercise/procedures/drive-vane";
        assertThat(guest.post(drive, drive, Map.of())).contains("Your role may not do this");
        van.simulation().plant().crank();
        Garage.until("the engine", () -> van.reading("engine.state") == 2);
        assertThat(write(agree)).contains("Gate shut: Engine state running");
        van.driver(Driver.away());
    }

    @Test
    void aNewModuleIsToldWhatTheOldOneKnewAndAPlugThatWasLeftOffIsFound() throws Exception {
        TrailerSwap swap = TrailerSwap.begin(van, lead, job);
        swap.at("carried");
        assertThat(swap.page())
                .contains("tow bar, socket of 13 pins")
                .contains("bulbs")
                .contains("15 A");
        swap.choose("carried", "carry");
        swap.swap();
        assertThat(swap.page()).contains("not set").contains("tow bar, socket of 13 pins");
        // the power of the vehicle is lost while it is being written
        van.module("trailer").refuse(0x2E, 0x72);
        swap.choose("agree", "go");
        swap.at("not-written");
        assertThat(swap.page()).contains("programming failed");
        van.gateway().cut();
        van.module("trailer").refuse(0x2E, 0);
        swap.choose("not-written", "again");
        swap.wake();
        swap.at("plug");
        assertThat(swap.page())
                .contains("A plug is off at the new module")
                .contains("No code came since that fails now; 1 came meanwhile and passes.");
        van.simulation().act("plug-trailer");
        swap.choose("plug", "home");
        swap.ended();
        assertThat(swap.page()).contains("The new module knows the van");
        assertThat(lead.get(page("trailer"))).contains(van.vin()).contains("15 A");
    }

    @Test
    void aSilentOldModuleIsReplacedFromVinAndOptions() throws Exception {
        van.module("trailer").behave(Behaviour.SILENT);
        TrailerSwap swap = TrailerSwap.begin(van, lead, job);
        swap.at("silent");
        assertThat(swap.page()).contains("It could not be read: ");
        van.module("trailer").behave(Behaviour.NORMAL);
        swap.done("silent");
        swap.choose("tow-bar", "fitted");
        swap.choose("socket", "thirteen");
        swap.choose("battery", "none");
        swap.at("built");
        assertThat(swap.page()).contains(van.vin()).contains("tow bar, socket of 13 pins");
        swap.choose("built", "right");
        swap.swap();
        swap.choose("agree", "go");
        swap.wake();
        // lamps can neither be known from the VIN nor from options: they are set afterwards
        swap.ended();
        assertThat(swap.page())
                .contains("The module says that it was not told all it needs.")
                .contains("new: Trailer, B2A10-55 Trailer module not configured");
        String agree =
                lead.post(
                        page("trailer"),
                        page("trailer") + "/compare",
                        Map.of("i.fitted", "tow bar, socket of 13 pins", "i.lamps", "bulbs"));
        lead.post(
                page("trailer"),
                page("trailer") + "/write",
                Map.of(
                        "before.lamps", hidden(agree, "before.lamps"),
                        "after.lamps", hidden(agree, "after.lamps")));
        assertThat(lead.get(page("trailer"))).contains("bulbs instead of not set");
    }
}
