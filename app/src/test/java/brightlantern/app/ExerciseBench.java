package brightlantern.app;

import brightlantern.app.account.Accounts;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.module.UdsModule;
import brightlantern.standin.plant.Driver;
import brightlantern.wire.Bytes;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * How fast a shut gate acts, and twelve procedures at once; run by {@code ./lantern bench}, not
 * with the tests.
 */
class ExerciseBench {
    private static final List<String> VEHICLES =
            List.of(
                    "oriel-finch",
                    "velmont-cairn",
                    "quillon-ember",
                    "stonebarrow-wl9",
                    "oriel-heron",
                    "oriel-finch");
    private static final Pattern RUN = Pattern.compile("/exercise/runs/(\\d+)/now");
    private static final int GATE_ROUNDS = 12;
    private static final int SECONDS = 60;

    @TempDir Path data;

    private static void told(String format, Object... args) {
        System.out.println("bench: " + String.format(Locale.ROOT, format, args));
    }

    private static String run(String page) {
        Matcher run = RUN.matcher(page);
        if (!run.find()) {
            throw new AssertionError(page);
        }
        return run.group(1);
    }

    private static String held(Visitor who, String exercise, int seconds) throws Exception {
        String hand = exercise + "/hand/radiator-fan";
        Map<String, String> form = new LinkedHashMap<>();
        form.put("how", "sequence");
        form.put("sequence", "40 % for " + seconds / 2 + " s, 80 % for " + seconds / 2 + " s");
        return exercise + "/runs/" + run(who.post(hand, hand, form));
    }

    @Test
    void aShutGateActs() throws Exception {
        String address = "127.0.85.2";
        try (Garage garage = new Garage(data)) {
            StandInVehicle hatch = garage.vehicle("oriel-finch", false, address);
            hatch.driver(Driver.away().key(2));
            Visitor tech = garage.visitor("tech");
            String exercise = "/jobs/" + garage.job(hatch, address, Set.of()) + "/exercise";
            UdsModule engine = hatch.module("engine");
            AtomicLong shutTold = new AtomicLong();
            AtomicLong givenBack = new AtomicLong();
            AtomicInteger rpm = new AtomicInteger();
            // 0.25 rpm a bit; the moment at which the first answer with a shut gate is made
            engine.identifier(
                    0x2001,
                    () -> {
                        if (rpm.get() > 0) {
                            shutTold.compareAndSet(0, System.nanoTime());
                        }
                        return Bytes.of(rpm.get() >> 8, rpm.get());
                    });
            engine.output(
                    0x3004,
                    new UdsModule.Output(
                            () -> 0.0,
                            percent -> {
                                if (percent.isEmpty()) {
                                    givenBack.compareAndSet(0, System.nanoTime());
                                }
                            },
                            () -> true));
            List<Double> millis = new ArrayList<>();
            for (int i = 0; i < GATE_ROUNDS; i++) {
                String run = held(tech, exercise, SECONDS);
                Garage.until("driven", () -> tech.reads(run + "/now").contains("is being driven"));
                Garage.pause(600 + 37L * i);
                shutTold.set(0);
                givenBack.set(0);
                rpm.set(3200);
                Garage.until("given back", () -> givenBack.get() > 0);
                millis.add((givenBack.get() - shutTold.get()) / 1e6);
                rpm.set(0);
                Garage.until("the end", () -> tech.reads(run + "/now").contains("id=\"ended\""));
            }
            Collections.sort(millis);
            told(
                    "from the answer that shuts a gate to the output given back: median %.0f ms, most %.0f ms of %d (wanted 200)",
                    millis.get(millis.size() / 2), millis.get(millis.size() - 1), millis.size());
        }
    }

    /** One person with one vehicle, an actuator held and a check plan under way. */
    private static final class Person {
        final Visitor visitor;
        final String held;
        final String plan;

        Person(Visitor visitor, String held, String plan) {
            this.visitor = visitor;
            this.held = held;
            this.plan = plan;
        }
    }

    @Test
    void twelveProceduresAtOnce() throws Exception {
        try (Garage garage = new Garage(data)) {
            Accounts accounts = garage.app.getBean(Accounts.class);
            List<Person> people = new ArrayList<>();
            List<Double> millis = Collections.synchronizedList(new ArrayList<>());
            for (int i = 0; i < VEHICLES.size(); i++) {
                String address = "127.0.85." + (10 + i);
                String name = "person-" + i;
                accounts.add(name, name, Workshop.PASSWORD, Accounts.Role.TECHNICIAN);
                StandInVehicle vehicle = garage.vehicle(VEHICLES.get(i), false, address);
                vehicle.driver(Driver.away().key(2));
                Visitor visitor = garage.visitor(name);
                String exercise = "/jobs/" + garage.job(vehicle, address, Set.of()) + "/exercise";
                String held = held(visitor, exercise, SECONDS);
                String page = exercise + "/procedures/two-wire-sensor";
                people.add(
                        new Person(
                                visitor,
                                held,
                                exercise + "/runs/" + run(visitor.post(page, page, Map.of()))));
            }
            List<Thread> pages = new ArrayList<>();
            List<String> broken = Collections.synchronizedList(new ArrayList<>());
            for (Person p : people) {
                Thread page =
                        new Thread(
                                () -> {
                                    try {
                                        work(p, millis);
                                        String end = p.visitor.get(p.held);
                                        if (!end.contains("was driven and given back")) {
                                            broken.add(end);
                                        }
                                    } catch (Exception unforeseen) {
                                        broken.add(unforeseen.toString());
                                    }
                                });
                page.start();
                pages.add(page);
            }
            for (Thread page : pages) {
                page.join();
            }
            double[] sorted = millis.stream().mapToDouble(m -> m).sorted().toArray();
            told(
                    "12 procedures on %d vehicles by %d people: page actions median %.0f ms, 95th percentile %.0f ms of %d (wanted 200); %d of %d runs lost their session (wanted 0)",
                    people.size(),
                    people.size(),
                    sorted[sorted.length / 2],
                    sorted[(int) (sorted.length * 0.95)],
                    sorted.length,
                    broken.size(),
                    people.size());
            broken.stream().limit(1).forEach(b -> told("%s", b));
        }
    }

    /** What both pages of a person do until the actuator is given back. */
    private static void work(Person p, List<Double> millis) throws Exception {
        String token = p.visitor.token(p.plan);
        for (boolean ended = false; !ended; ) {
            String[] now = {""};
            millis.add(millis(() -> now[0] = p.visitor.get(p.held + "/now")));
            millis.add(millis(() -> p.visitor.get(p.plan + "/now")));
            millis.add(
                    millis(
                            () ->
                                    p.visitor.send(
                                            token, p.plan + "/done", Map.of("step", "unplug"))));
            ended = now[0].contains("id=\"ended\"");
            Garage.pause(700);
        }
    }

    private interface Action {
        void act() throws Exception;
    }

    private static double millis(Action action) throws Exception {
        long t = System.nanoTime();
        action.act();
        return (System.nanoTime() - t) / 1e6;
    }
}
