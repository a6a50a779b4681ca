package brightlantern.core.sweep;

import brightlantern.core.code.Code;
import brightlantern.core.code.DtcStatus;
import brightlantern.core.code.StoredCode;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Feed;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiPredicate;
import java.util.stream.Collectors;

/** Orders codes by what matters for the complaint, and tells lead from knock-on, with reasons. */
public final class CodeWeigher {
    /**
     * A code that nobody described could be anything; halfway between "the cause" and "cannot
     * matter".
     */
    private static final double UNKNOWN_WEIGHT = 0.5;

    /**
     * How much more a code counts whose family the complaint speaks of; enough to lift it one
     * standing.
     */
    private static final double COMPLAINT_FACTOR = 2.0;

    /** Below this share of the best the code is put aside. */
    private static final double ASIDE_SHARE = 0.2;

    /** A freeze frame that saw the condition twice is a pattern, not a chance. */
    private static final double REPEATED_FACTOR = 1.2;

    /** Modules are built to work down to some 9 V; below this their findings mean little. */
    private static final double LOW_SUPPLY_VOLTS = 10.5;

    private CodeWeigher() {}

    /** What part a code plays. */
    public enum Role {
        LEAD("lead code"),
        STANDS_FOR_WIRE("lead code"),
        OPEN(""),
        KNOCK_ON("knock-on"),
        ASIDE("need not be chased");

        private final String words;

        Role(String words) {
            this.words = words;
        }

        /** As people read it. */
        public String words() {
            return words;
        }
    }

    /**
     * @param score relative, only for ordering
     */
    public record Weighed(StoredCode code, double score, Role role, List<String> reasons) {
        /** Whether this one is to be chased. */
        public boolean lead() {
            return role == Role.LEAD || role == Role.STANDS_FOR_WIRE;
        }

        /** Whether it need not be chased. */
        public boolean aside() {
            return role == Role.ASIDE;
        }

        /** Whether it follows from another one. */
        public boolean knockOn() {
            return role == Role.KNOCK_ON;
        }
    }

    /**
     * A fault of the network that explains missing messages.
     *
     * @param name in words
     * @param explains whether a message from the first module to the second is lost by it
     */
    public record BrokenWire(String name, BiPredicate<String, String> explains) {}

    /** Orders codes; the first one is the lead code unless all may be put aside. */
    public static List<Weighed> weigh(
            List<StoredCode> codes, VehicleDescription description, Set<String> symptomIds) {
        return weigh(codes, description, symptomIds, Optional.empty(), Set.of());
    }

    /**
     * The same, with what is known of the network.
     *
     * @param broken what the network is thought to suffer from; empty when nothing is
     * @param absent modules that this vehicle was not fitted with
     */
    public static List<Weighed> weigh(
            List<StoredCode> codes,
            VehicleDescription description,
            Set<String> symptomIds,
            Optional<BrokenWire> broken,
            Set<String> absent) {
        Set<String> families =
                description.symptoms().stream()
                        .filter(s -> symptomIds.contains(s.id()))
                        .flatMap(s -> s.families().stream())
                        .collect(Collectors.toSet());
        Map<String, String> broughtBy = broughtBy(codes, description);
        List<StoredCode> present =
                codes.stream()
                        .filter(c -> c.statusByte().standing() != DtcStatus.Standing.QUIET)
                        .toList();
        Shared shared =
                new Shared(sensors(present, description), feed(present, description), absent);
        List<Weighed> weighed = new ArrayList<>();
        for (StoredCode code : codes) {
            weighed.add(weigh(code, description, families, broken, broughtBy, shared));
        }
        weighed.sort(Comparator.comparingDouble(Weighed::score).reversed());
        double best =
                weighed.stream()
                        .filter(w -> w.role() == Role.OPEN)
                        .mapToDouble(Weighed::score)
                        .max()
                        .orElse(0);
        List<Weighed> ranked = new ArrayList<>();
        boolean led = false;
        for (Weighed w : weighed) {
            Role role = w.role();
            if (role == Role.OPEN && (w.score() <= ASIDE_SHARE * best || w.score() < ASIDE_SHARE)) {
                role = Role.ASIDE;
            } else if (role == Role.OPEN && !led) {
                role = Role.LEAD;
                led = true;
            }
            ranked.add(new Weighed(w.code(), w.score(), role, w.reasons()));
        }
        if (!led && broken.isPresent()) {
            ranked = standFor(ranked, broken.get());
        }
        ranked.sort(Comparator.comparing(w -> w.role().ordinal()));
        return List.copyOf(ranked);
    }

    /** With nothing but knock-on codes the heaviest of them stands for the broken wire. */
    private static List<Weighed> standFor(List<Weighed> ranked, BrokenWire broken) {
        List<Weighed> with = new ArrayList<>(ranked);
        boolean missing = with.stream().anyMatch(CodeWeigher::ofMissingMessages);
        for (int i = 0; i < with.size(); i++) {
            Weighed w = with.get(i);
            if (missing ? ofMissingMessages(w) : w.knockOn()) {
                List<String> reasons = new ArrayList<>(w.reasons());
                reasons.add(
                        "It stands for the cause, which has no code of its own: "
                                + broken.name()
                                + ".");
                with.set(i, new Weighed(w.code(), w.score(), Role.STANDS_FOR_WIRE, reasons));
                break;
            }
        }
        return with;
    }

    private static boolean ofMissingMessages(Weighed w) {
        // U codes are those of the network (ISO 15031-6)
        return w.knockOn() && w.code().code().startsWith("U");
    }

    /**
     * What codes have in common by the way the vehicle is wired.
     *
     * @param sensors value → the present code that speaks of its sensor or reference
     * @param feed the fuse or earth that alone explains all supply codes, those modules first that
     *     hold one
     * @param absent modules that are not fitted
     */
    private record Shared(Map<String, String> sensors, Optional<Feed> feed, Set<String> absent) {}

    private static Map<String, String> sensors(
            List<StoredCode> present, VehicleDescription description) {
        Map<String, String> sensors = new LinkedHashMap<>();
        for (StoredCode code : present) {
            description
                    .code(code.moduleId(), code.code())
                    .map(Code::about)
                    .filter(about -> !about.isEmpty())
                    .ifPresent(about -> sensors.putIfAbsent(about, code.code()));
        }
        return sensors;
    }

    /**
     * A fuse or earth whose modules, at least two of them and nobody else, complain of their
     * supply, while others could and do not.
     */
    private static Optional<Feed> feed(List<StoredCode> present, VehicleDescription description) {
        Set<String> complain =
                present.stream()
                        .filter(
                                c ->
                                        description
                                                .code(c.moduleId(), c.code())
                                                .map(k -> k.sets().equals("supply"))
                                                .orElse(false))
                        .map(StoredCode::moduleId)
                        .collect(Collectors.toCollection(LinkedHashSet::new));
        Set<String> could =
                description.codes().stream()
                        .filter(c -> c.sets().equals("supply"))
                        .map(Code::module)
                        .collect(Collectors.toSet());
        if (complain.size() < 2) {
            return Optional.empty();
        }
        return description.feeds().stream()
                .filter(f -> f.modules().containsAll(complain))
                .filter(f -> could.stream().anyMatch(m -> !f.modules().contains(m)))
                .findFirst()
                .map(
                        f ->
                                new Feed(
                                        f.id(),
                                        f.name(),
                                        f.kind(),
                                        f.place(),
                                        f.minutes(),
                                        f.common(),
                                        List.copyOf(complain)));
    }

    /** Code → the present code that brings it along, by the description. */
    private static Map<String, String> broughtBy(
            List<StoredCode> codes, VehicleDescription description) {
        Map<String, String> by = new LinkedHashMap<>();
        for (StoredCode code : codes) {
            if (code.statusByte().standing() != DtcStatus.Standing.QUIET) {
                description
                        .code(code.moduleId(), code.code())
                        .map(Code::brings)
                        .orElse(List.of())
                        .forEach(b -> by.putIfAbsent(b, code.code()));
            }
        }
        return by;
    }

    private static Weighed weigh(
            StoredCode code,
            VehicleDescription description,
            Set<String> families,
            Optional<BrokenWire> broken,
            Map<String, String> broughtBy,
            Shared shared) {
        List<String> reasons = new ArrayList<>();
        Optional<Code> known = description.code(code.moduleId(), code.code());
        double score = known.map(Code::weight).orElse(UNKNOWN_WEIGHT);
        Role role = role(code, known, description, broken, broughtBy, shared, reasons);
        known.map(Code::why).filter(why -> !why.isEmpty()).ifPresent(reasons::add);
        if (known.isEmpty()) {
            reasons.add("The description does not know this code.");
        }
        DtcStatus.Standing standing = code.statusByte().standing();
        score *=
                switch (standing) {
                    case FAILS_NOW -> 1.0;
                    case CONFIRMED -> 0.8;
                    case PENDING -> 0.6;
                    case HISTORY -> 0.4;
                    case QUIET -> 0.1;
                };
        reasons.add(
                switch (standing) {
                    case FAILS_NOW -> "It fails now.";
                    case CONFIRMED -> "Confirmed, though it does not fail at this moment.";
                    case PENDING -> "Seen, but not often enough to be confirmed.";
                    case HISTORY -> "Only history: it failed once and passed since.";
                    case QUIET -> "Its test found nothing.";
                });
        String family = known.map(Code::family).orElse("");
        if (families.contains(family)) {
            score *= COMPLAINT_FACTOR;
            reasons.add("Speaks of the same thing as the complaint (" + family + ").");
        } else if (!families.isEmpty()) {
            reasons.add("Has nothing in common with the complaint.");
        }
        if (code.frames().size() > 1) {
            score *= REPEATED_FACTOR;
            reasons.add(
                    "Set on " + Math.max(code.occurrences(), code.frames().size()) + " occasions.");
        }
        return new Weighed(code, score, role, reasons);
    }

    private static Role role(
            StoredCode code,
            Optional<Code> known,
            VehicleDescription description,
            Optional<BrokenWire> broken,
            Map<String, String> broughtBy,
            Shared shared,
            List<String> reasons) {
        String sets = known.map(Code::sets).orElse("");
        String misses = known.map(Code::misses).orElse("");
        if (shared.absent().contains(misses)) {
            reasons.add(
                    description.module(misses).map(ControlModule::name).orElse(misses)
                            + " is not fitted in this vehicle; nobody is silent.");
            return Role.ASIDE;
        }
        if (broken.isPresent()
                && (sets.equals("network")
                        || !misses.isEmpty()
                                && broken.get().explains().test(misses, code.moduleId()))) {
            reasons.add("Knock-on of: " + broken.get().name() + ".");
            return Role.KNOCK_ON;
        }
        if (broughtBy.containsKey(code.code())) {
            reasons.add("Brought along by " + broughtBy.get(code.code()) + ".");
            return Role.KNOCK_ON;
        }
        for (String used : known.map(Code::uses).orElse(List.of())) {
            String sensor = shared.sensors().get(used);
            if (sensor != null && !sensor.equals(code.code())) {
                reasons.add(
                        "Its test relies on "
                                + description
                                        .value(used)
                                        .map(v -> v.name().toLowerCase(Locale.ROOT))
                                        .orElse(used)
                                + ", of which "
                                + sensor
                                + " speaks.");
                return Role.KNOCK_ON;
            }
        }
        if (sets.equals("supply") && shared.feed().isPresent()) {
            Feed feed = shared.feed().get();
            reasons.add(
                    "Only modules on "
                            + feed.name()
                            + " hold such a code: look there ("
                            + feed.place()
                            + ").");
            return code.moduleId().equals(feed.modules().get(0)) ? Role.OPEN : Role.KNOCK_ON;
        }
        if (sets.equals("condition")) {
            reasons.add("It only says that the conditions of its test were not met.");
            return Role.ASIDE;
        }
        Optional<Double> low =
                code.frames().stream()
                        .flatMap(f -> f.values().entrySet().stream())
                        .filter(v -> v.getKey().endsWith(".supply"))
                        .map(Map.Entry::getValue)
                        .filter(v -> v < LOW_SUPPLY_VOLTS)
                        .findFirst();
        if (low.isPresent()) {
            reasons.add(
                    String.format(
                            Locale.ROOT,
                            "Explained by the low supply at that time: its freeze frame has %.1f V.",
                            low.get()));
            return Role.ASIDE;
        }
        return Role.OPEN;
    }
}
