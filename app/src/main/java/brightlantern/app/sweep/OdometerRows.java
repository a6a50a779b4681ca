package brightlantern.app.sweep;

import brightlantern.app.page.JobPages;
import brightlantern.app.page.UnitChoices;
import brightlantern.core.network.ControlModule;
import brightlantern.core.odometer.MileageRecord;
import brightlantern.core.odometer.OdometerCheck;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** What each module knows of the distance, as rows. */
final class OdometerRows {
    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH).withZone(ZoneOffset.UTC);

    private OdometerRows() {}

    record Row(
            String name,
            String module,
            String value,
            String when,
            String says,
            String tone,
            String why,
            String from,
            String width) {}

    /** One for each record, in the units in which whoever asks reads. */
    static List<Row> rows(JobPages.Context context, OdometerChecks.Check check, UnitChoices units) {
        double most =
                check.verdict().rows().stream()
                        .filter(r -> Double.isFinite(r.mostKm()))
                        .mapToDouble(OdometerCheck.Row::mostKm)
                        .max()
                        .orElse(1);
        double scale = 300 / Math.max(most, check.shown());
        List<Row> rows = new ArrayList<>();
        rows.add(
                new Row(
                        "Shown by the odometer",
                        "",
                        units.read(km(check.shown())),
                        "now",
                        "",
                        "",
                        "",
                        "0",
                        figure(check.shown() * scale)));
        for (OdometerCheck.Row r : check.verdict().rows()) {
            boolean known = Double.isFinite(r.leastKm());
            MileageRecord record = r.record();
            // a single figure is drawn from nothing, a range from its lower end
            double from = known && r.mostKm() > r.leastKm() ? r.leastKm() : 0;
            rows.add(
                    new Row(
                            record.name(),
                            context.description()
                                    .module(record.module())
                                    .map(ControlModule::name)
                                    .orElse(record.module()),
                            record.kind() == MileageRecord.Kind.DISTANCE
                                    ? units.read(km(record.value()))
                                    : String.format(
                                            Locale.ROOT,
                                            "%,.0f %s",
                                            record.value(),
                                            record.kind().unit()),
                            record.epochSeconds().isPresent()
                                    ? DAY.format(
                                            Instant.ofEpochSecond(
                                                    (long) record.epochSeconds().getAsDouble()))
                                    : "now",
                            r.says().words(),
                            switch (r.says()) {
                                case CONTRADICTS -> "fails";
                                case AGREES -> "holds";
                                default -> "soft";
                            },
                            units.read(r.why()),
                            known ? figure(from * scale) : "0",
                            known ? figure(Math.max(2, (r.mostKm() - from) * scale)) : "0"));
        }
        return rows;
    }

    static String km(double km) {
        return String.format(Locale.ROOT, "%,.0f km", km);
    }

    private static String figure(double units) {
        return String.format(Locale.ROOT, "%.1f", units);
    }

    /** What the verdict is for the suspects, where the description has such a finding. */
    static Optional<Evidence> outcome(VehicleDescription d, OdometerCheck.Verdict verdict) {
        if (d.finding(OdometerController.FINDING).isEmpty()
                || verdict.independent() == 0
                || !verdict.accused() && verdict.setBack() > 1 - OdometerCheck.SURE) {
            return Optional.empty();
        }
        return Optional.of(
                new Evidence.Judged(
                        OdometerController.FINDING,
                        verdict.accused() ? "set-back" : "honest",
                        Math.max(verdict.setBack(), 1 - verdict.setBack())));
    }

    /**
     * The vehicle's own clock, by which its entries are dated; this machine's where it has none.
     */
    static double now(JobPages.Context context) {
        return context.description()
                .value(OdometerController.CLOCK)
                .map(
                        c ->
                                context.link()
                                        .read(
                                                context.description(),
                                                List.of(OdometerController.CLOCK))
                                        .get(OdometerController.CLOCK))
                .orElse(System.currentTimeMillis() / 1000.0);
    }
}
