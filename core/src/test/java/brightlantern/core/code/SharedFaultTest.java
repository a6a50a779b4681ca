package brightlantern.core.code;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.sweep.CodeWeigher;
import brightlantern.core.sweep.CodeWeigher.Role;
import brightlantern.core.sweep.CodeWeigher.Weighed;
import brightlantern.core.vehicle.DescriptionReader;
import brightlantern.core.vehicle.VehicleDescription;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Families by the way a vehicle is wired: one sensor, one fuse, one earth. */
class SharedFaultTest {
    private static VehicleDescription vehicle;

    @BeforeAll
    static void describe(@TempDir Path folder) throws Exception {
        Path made = Files.createDirectories(folder.resolve("wired"));
        Files.writeString(
                made.resolve("vehicle.yaml"),
                """
                name: Wired
                engine: none
                vinPattern: ZZ.*
                buses: [{id: b, name: Bus, kbit: 500}]
                modules:
                  - {id: gateway, name: Gateway, address: 1, bus: b, order: 1}
                  - {id: engine, name: Engine, address: 2, bus: b, order: 2}
                  - {id: fan, name: Fan, address: 3, bus: b, order: 3}
                  - {id: body, name: Body, address: 4, bus: b, order: 4, watches: [seat]}
                  - {id: seat, name: Seat heater, address: 5, bus: b, order: 5, missed: U0208-00, option: winter}
                feeds:
                  - {id: G7, name: Earth stud G7, kind: earth, place: left wing, minutes: 4, modules: [engine, fan]}
                values:
                  - {id: coolant, module: engine, did: 0x2001, bytes: 1, name: Coolant temperature, unit: °C}
                codes:
                  - {code: P0117-00, module: engine, name: Coolant sensor too low, weight: 0.5, about: coolant}
                  - {code: P0128-00, module: engine, name: Warms up too slowly, weight: 0.9, uses: [coolant]}
                  - {code: P0480-00, module: fan, name: Fan not as wanted, weight: 0.6, uses: [coolant]}
                  - {code: P0562-00, module: engine, name: Supply too low, weight: 0.3, sets: supply}
                  - {code: B1318-00, module: fan, name: Supply too low, weight: 0.3, sets: supply}
                  - {code: B1318-00, module: body, name: Supply too low, weight: 0.3, sets: supply}
                live: {supply: coolant, ignition: coolant, ignitionOn: 2, engineSpeed: coolant, odometer: coolant, vinModule: engine}
                """);
        vehicle = new DescriptionReader().read(made);
    }

    private static StoredCode code(String module, String code) {
        return new StoredCode(module, module, code, code, 0x08, List.of(), 1, 0);
    }

    private static Map<String, Weighed> weigh(StoredCode... codes) {
        return CodeWeigher.weigh(List.of(codes), vehicle, Set.of()).stream()
                .collect(
                        Collectors.toMap(w -> w.code().moduleId() + " " + w.code().code(), w -> w));
    }

    @Test
    void oneSensorBringsAllCodesWhoseTestsRelyOnIt() {
        Map<String, Weighed> weighed =
                weigh(
                        code("engine", "P0128-00"),
                        code("fan", "P0480-00"),
                        code("engine", "P0117-00"));
        assertThat(weighed.get("engine P0117-00").role()).isEqualTo(Role.LEAD);
        for (String knock : List.of("engine P0128-00", "fan P0480-00")) {
            assertThat(weighed.get(knock).role()).isEqualTo(Role.KNOCK_ON);
            assertThat(weighed.get(knock).reasons())
                    .contains("Its test relies on coolant temperature, of which P0117-00 speaks.");
        }
    }

    @Test
    void withoutTheSensorsOwnCodeTheyStandForThemselves() {
        assertThat(weigh(code("engine", "P0128-00")).get("engine P0128-00").role())
                .isEqualTo(Role.LEAD);
    }

    @Test
    void supplyCodesOfOneEarthAlonePointAtThatEarth() {
        Map<String, Weighed> weighed = weigh(code("engine", "P0562-00"), code("fan", "B1318-00"));
        assertThat(weighed.get("engine P0562-00").role()).isEqualTo(Role.LEAD);
        assertThat(weighed.get("fan B1318-00").role()).isEqualTo(Role.KNOCK_ON);
        assertThat(weighed.get("fan B1318-00").reasons())
                .contains(
                        "Only modules on Earth stud G7 hold such a code: look there (left wing).");
    }

    @Test
    void aCodeAboutAModuleThatIsNotFittedIsPutAside() {
        for (boolean fitted : List.of(true, false)) {
            Weighed weighed =
                    CodeWeigher.weigh(
                                    List.of(code("body", "U0208-00")),
                                    vehicle,
                                    Set.of(),
                                    Optional.empty(),
                                    fitted ? Set.of() : Set.of("seat"))
                            .get(0);
            assertThat(weighed.role()).isEqualTo(fitted ? Role.LEAD : Role.ASIDE);
            assertThat(
                            weighed.reasons()
                                    .contains(
                                            "Seat heater is not fitted in this vehicle; nobody is silent."))
                    .isEqualTo(!fitted);
        }
    }

    @Test
    void supplyCodesEverywherePointAtNoEarth() {
        List<Weighed> all =
                List.copyOf(
                        weigh(
                                        code("engine", "P0562-00"),
                                        code("fan", "B1318-00"),
                                        code("body", "B1318-00"))
                                .values());
        assertThat(all.stream().flatMap(w -> w.reasons().stream()))
                .noneMatch(r -> r.contains("Earth stud G7"));
    }
}
