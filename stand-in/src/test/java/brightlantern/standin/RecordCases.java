package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.proof.RepairWays;
import brightlantern.core.reason.Contribution;
import brightlantern.core.reason.EvidenceWords;
import brightlantern.core.reason.Standing;
import brightlantern.core.shelf.CaseFile;
import brightlantern.core.shelf.ShelfCase;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/**
 * Cases for the demo's shelf: parts drawn by their rates are broken in stand-ins of all kinds,
 * found by following what the program proposes, mended, and looked at again. Run by hand when the
 * descriptions have changed much.
 */
class RecordCases {
    private static final int WANTED = 26;
    private static final int MOST_TRIES = 80;
    private static final int DECISIVE = 4;
    private static final double MINUTE = 1.6;
    private static final String FROM = "the practice yard";

    private static final Path FILE = Path.of("../app/src/main/resources/demo/cases.json");
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final Random random = new Random(Long.getLong("seed", 2611));
    private final Yard yard = new Yard(random);

    @Test
    void records() throws Exception {
        List<ShelfCase> cases = new ArrayList<>();
        for (int i = 0; i < MOST_TRIES && cases.size() < WANTED; i++) {
            solved(i % 3).ifPresent(cases::add);
        }
        cases.sort(Comparator.comparing(ShelfCase::vehicle).thenComparing(ShelfCase::cause));
        assertThat(cases).hasSize(WANTED);
        write(cases);
    }

    /** Draws those that are there anew. */
    @Test
    void draws() throws Exception {
        write(JSON.readValue(Files.readString(FILE), CaseFile.class).cases());
    }

    private static void write(List<ShelfCase> cases) throws IOException {
        CaseFile file = CaseFile.of(FROM, cases, CaseDrawings.of(cases));
        assertThat(file.taken()).hasSize(WANTED);
        Files.writeString(
                FILE, JSON.writerWithDefaultPrettyPrinter().writeValueAsString(file) + "\n");
    }

    private Optional<ShelfCase> solved(int kind) {
        String id = yard.drawn();
        VehicleDescription d = yard.vehicle(id);
        StandInVehicle v = yard.built(id);
        Breaker breaker = new Breaker(v);
        boolean mechanical = kind == 0;
        Breaker.Broken broken =
                breaker.breakSomething(
                        mechanical ? breaker.mechanical() : breaker.inCircuits(), random, false);
        Robot robot = new Robot(v, random);
        Robot.Ended ended = robot.follow(yard.reasoners(id), robot.told(broken));
        Optional<Suspect> named =
                ended.ranking().accused().map(Standing::suspectId).flatMap(d::suspect);
        if (named.isEmpty() || !isRight(named.get(), broken, v, mechanical)) {
            return Optional.empty();
        }
        v.whole();
        boolean well =
                ended.found().stream()
                        .flatMap(e -> robot.again(e).stream())
                        .allMatch(e -> e.passed().orElse(true));
        return well ? Optional.of(kept(d, broken, ended, named.get())) : Optional.empty();
    }

    private static boolean isRight(
            Suspect named, Breaker.Broken broken, StandInVehicle v, boolean mechanical) {
        return mechanical
                ? named.repair()
                        .id()
                        .equals(v.simulation().damage().failing(broken.part()).repair())
                : v.description()
                        .wiring()
                        .alike(broken.part())
                        .contains(Robot.part(v.description(), named.id()));
    }

    private static ShelfCase kept(
            VehicleDescription d, Breaker.Broken broken, Robot.Ended ended, Suspect cause) {
        Standing standing = ended.ranking().of(cause.id()).orElseThrow();
        return new ShelfCase(
                0,
                d.id(),
                d.name(),
                broken.complaint(),
                Set.copyOf(broken.symptoms()),
                ended.found().stream()
                        .filter(e -> e instanceof Evidence.CodeSeen c && c.present())
                        .map(e -> ((Evidence.CodeSeen) e).code())
                        .collect(Collectors.toSet()),
                standing.contributions().stream()
                        .filter(c -> c.log10Odds() > 0.1)
                        .sorted(Comparator.comparingDouble(Contribution::log10Odds).reversed())
                        .map(c -> EvidenceWords.of(ended.found().get(c.evidenceIndex()), d))
                        .filter(words -> !words.isEmpty())
                        .limit(DECISIVE)
                        .toList(),
                cause.name(),
                cause.repair().name(),
                cause.id(),
                standing.size(),
                ended.minutes() + cause.repair().minutes(),
                RepairWays.price(cause, MINUTE),
                FROM);
    }
}
