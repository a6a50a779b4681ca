package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Takes;
import brightlantern.app.page.JobPages;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;

/** Studies over one take or many together: operating map, scatter, overlay of two. */
@Controller
@RequestMapping("/jobs/{id}/watch/studies")
class StudyController {
    private final JobPages pages;
    private final Takes takes;
    private final Findings findings;
    private final KeptStudies kept;
    private final StudyMaker studyMaker;

    StudyController(
            JobPages pages,
            Takes takes,
            Findings findings,
            KeptStudies kept,
            StudyMaker studyMaker) {
        this.pages = pages;
        this.takes = takes;
        this.findings = findings;
        this.kept = kept;
        this.studyMaker = studyMaker;
    }

    /** What was asked for; blank where nothing was. */
    record Asked(
            List<Long> take,
            String kind,
            String x,
            String y,
            String z,
            String when,
            String xEdges,
            String yEdges,
            String minus,
            Boolean path,
            Long before,
            Long after) {
        Asked {
            take = take == null ? List.of() : take;
            kind = kind == null || kind.isBlank() ? "map" : kind;
            x = x == null ? "" : x;
            y = y == null ? "" : y;
            z = z == null ? "" : z;
            when = when == null ? "" : when;
            xEdges = xEdges == null ? "" : xEdges;
            yEdges = yEdges == null ? "" : yEdges;
            minus = minus == null ? "" : minus;
            path = path != null && path;
        }

        Asked with(String newX, String newY, String newZ, Long first, Long second) {
            return new Asked(
                    take, kind, newX, newY, newZ, when, xEdges, yEdges, minus, path, first, second);
        }
    }

    /** A take of this vehicle, of this job or an earlier one. */
    record Listed(Takes.TakeHead head, boolean here, boolean chosen) {}

    @GetMapping
    String page(@PathVariable("id") long id, Asked given, Model model) {
        JobPages.Context context = pages.fill(id, "watch", model);
        List<Takes.TakeHead> heads = studyMaker.heads(context.job());
        List<Long> chosen =
                given.take().isEmpty()
                        ? heads.stream()
                                .filter(h -> !h.setAside())
                                .limit(1)
                                .map(Takes.TakeHead::id)
                                .toList()
                        : given.take();
        List<OpenedTake.Opened> opened = new ArrayList<>();
        VehicleDescription d = context.description();
        for (Takes.TakeHead head : heads) {
            if (chosen.contains(head.id())
                    || head.id() == or(given.before())
                    || head.id() == or(given.after())) {
                d = d.withValues(takes.own(head.id()));
                opened.add(new OpenedTake.Opened(head, takes.ended(head), d));
            }
        }
        Asked asked = sensible(given, heads, values(opened, d), d);
        model.addAttribute("asked", asked);
        model.addAttribute(
                "heads",
                heads.stream()
                        .map(h -> new Listed(h, h.jobId() == id, chosen.contains(h.id())))
                        .toList());
        model.addAttribute("values", values(opened, d));
        model.addAttribute("maps", kept.maps(id));
        model.addAttribute(
                "findings", d.findings().stream().filter(f -> !Reasoners.isDerived(f)).toList());
        model.addAttribute("answer", "What do the takes say together?");
        try {
            studyMaker.study(
                    asked,
                    opened,
                    opened.stream().filter(o -> chosen.contains(o.head().id())).toList(),
                    d,
                    id,
                    model);
        } catch (IllegalArgumentException wrong) {
            model.addAttribute("trouble", wrong.getMessage());
        }
        return "watch/studies";
    }

    /** A page never opens empty: what this engine asks for is drawn until something is chosen. */
    static Asked sensible(
            Asked asked, List<Takes.TakeHead> heads, List<Shown> values, VehicleDescription d) {
        boolean blank = asked.x().isEmpty() && asked.y().isEmpty() && asked.z().isEmpty();
        if (!blank || values.isEmpty()) {
            return asked;
        }
        List<String> there = values.stream().filter(v -> !v.state()).map(Shown::id).toList();
        String x = first(there, List.of("engine.speed", "vehicle.speed"), List.of());
        String y = first(there, List.of("engine.load", "pack.current"), List.of(x));
        List<String> telling = new ArrayList<>();
        d.follows().forEach(f -> telling.add(f.actual()));
        d.trims().forEach(t -> telling.add(t.shortTerm()));
        d.cylinders().ifPresent(c -> telling.add(c.deviationOf(1)));
        String z = first(there, telling, List.of(x, y));
        if (asked.kind().equals("overlay")) {
            List<Takes.TakeHead> good = heads.stream().filter(h -> !h.setAside()).toList();
            return good.size() < 2
                    ? asked
                    : asked.with("", "", z, good.get(1).id(), good.get(0).id());
        }
        return z.isEmpty() ? asked : asked.with(x, y, z, asked.before(), asked.after());
    }

    /** The first of the wanted ids that is there, or any other that is not among those taken. */
    static String first(List<String> there, List<String> wanted, List<String> taken) {
        return Stream.concat(wanted.stream().filter(there::contains), there.stream())
                .filter(v -> !taken.contains(v))
                .findFirst()
                .orElse("");
    }

    static long or(Long id) {
        return id == null ? -1 : id;
    }

    static List<Shown> values(List<OpenedTake.Opened> opened, VehicleDescription d) {
        return opened.stream()
                .flatMap(o -> o.take().columns().keySet().stream())
                .distinct()
                .flatMap(v -> d.value(v).stream())
                .map(v -> Shown.of(d, v))
                .toList();
    }
}
