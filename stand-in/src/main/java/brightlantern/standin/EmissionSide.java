package brightlantern.standin;

import brightlantern.standin.module.CodeMemory;
import brightlantern.standin.module.UdsModule;
import brightlantern.wire.Bytes;
import java.util.List;
import java.util.function.DoubleSupplier;
import java.util.function.IntPredicate;

/**
 * What a module with emission duties tells beside the maker's own (ISO 27145-3 over ISO 14229-1):
 * readiness under F401, monitor results under F6xx. Monitors complete one after another while the
 * vehicle is driven, and begin anew after a clear.
 */
final class EmissionSide {
    /**
     * A monitor that needs a drive.
     *
     * @param bit of bytes C and D of PID 01 (SAE J1979, table of PID 01)
     * @param seconds of driving until it is complete
     * @param code that it sets, as a number
     */
    private record Monitor(int bit, double seconds, int code, Test test) {}

    /**
     * What it measures.
     *
     * @param monitor identifier, so that F600 + monitor reads it
     * @param scaling unit and scaling identifier of SAE J1979
     */
    private record Test(int monitor, int test, int scaling, int good, int bad, int min, int max) {}

    private static final List<Monitor> SPARK =
            List.of(
                    new Monitor(0, 40, 0x042000, new Test(0x21, 0x80, 0x20, 51, 180, 0, 128)),
                    new Monitor(2, 90, 0x049600, new Test(0x3D, 0x81, 0x27, 12, 96, 0, 40)),
                    new Monitor(5, 30, 0x013300, new Test(0x01, 0x82, 0x10, 62, 310, 0, 180)),
                    new Monitor(6, 10, 0x013500, new Test(0x41, 0x83, 0x14, 4, 19, 2, 12)));

    private static final List<Monitor> COMPRESSION =
            List.of(
                    new Monitor(3, 20, 0x029900, new Test(0x85, 0x80, 0x17, 600, 4100, 0, 2500)),
                    new Monitor(5, 30, 0x013300, new Test(0x01, 0x82, 0x10, 70, 320, 0, 200)),
                    new Monitor(6, 60, 0x245800, new Test(0xB2, 0x84, 0x2F, 3400, 9100, 0, 8500)),
                    new Monitor(7, 25, 0x040100, new Test(0x31, 0x85, 0x27, 210, 40, 90, 500)));

    private EmissionSide() {}

    /**
     * Whether a code belongs to the emission system: the powertrain codes that a standard names.
     */
    static boolean concerns(String code) {
        return code.startsWith("P0") || code.startsWith("P2");
    }

    /**
     * @param runs whether the monitor of a code runs in this module
     * @param engine whether it also looks after misfires, fuel and electrical parts
     */
    static void give(
            UdsModule module,
            boolean compression,
            DoubleSupplier driven,
            IntPredicate runs,
            boolean engine) {
        List<Monitor> monitors =
                (compression ? COMPRESSION : SPARK)
                        .stream().filter(m -> runs.test(m.code())).toList();
        module.identifier(
                0xF401,
                () -> {
                    int fitted = 0;
                    int open = 0;
                    for (Monitor m : monitors) {
                        fitted |= 1 << m.bit();
                        open |= driven.getAsDouble() < m.seconds() ? 1 << m.bit() : 0;
                    }
                    int stored = module.memory().emissionCodes();
                    return Bytes.of(
                            (stored > 0 ? 0x80 : 0) | Math.min(127, stored),
                            (engine ? 0x07 : 0) | (compression ? 0x08 : 0),
                            fitted,
                            open);
                });
        for (int base = 0; base <= 0xE0; base += 0x20) {
            int first = base;
            module.identifier(0xF600 + base, () -> supported(monitors, first));
        }
        for (Monitor m : monitors) {
            module.identifier(
                    0xF600 + m.test().monitor(), () -> result(module.memory(), m, driven));
        }
    }

    /** Which of the next 32 monitors are there, the first in the highest bit; SAE J1979. */
    private static Bytes supported(List<Monitor> monitors, int base) {
        long bits = base < 0xE0 ? 1 : 0;
        for (Monitor m : monitors) {
            int place = m.test().monitor() - base;
            bits |= place >= 1 && place <= 32 ? 1L << (32 - place) : 0;
        }
        return Bytes.of((int) (bits >> 24), (int) (bits >> 16), (int) (bits >> 8), (int) bits);
    }

    private static Bytes result(CodeMemory memory, Monitor m, DoubleSupplier driven) {
        Test t = m.test();
        boolean ran = driven.getAsDouble() >= m.seconds();
        int value = !ran ? 0 : memory.failed(m.code()) ? t.bad() : t.good();
        int min = ran ? t.min() : 0;
        int max = ran ? t.max() : 0;
        return Bytes.of(t.test(), t.scaling(), value >> 8, value, min >> 8, min, max >> 8, max);
    }
}
