package brightlantern.app.learned;

import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.JobPages;
import brightlantern.core.learned.LearnedStudy;
import brightlantern.core.learned.LearnedValue;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.signal.Words;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** What the modules have learned of a vehicle, and how it moved. */
@Controller
@RequestMapping("/jobs/{id}/watch/learned")
class LearnedController {
    /** Width of a drawn span between two limits. */
    private static final double WIDTH = 260;

    /** Readings before the newest that are drawn. */
    private static final int DRAWN = 12;

    private final JobPages pages;
    private final LearnedDesk desk;
    private final VehicleLinks links;

    LearnedController(JobPages pages, LearnedDesk desk, VehicleLinks links) {
        this.pages = pages;
        this.desk = desk;
        this.links = links;
    }

    /**
     * A value on its page; figures are ready to be read, places are in the units of its picture.
     *
     * @param before places of earlier readings, the oldest first
     * @param usedBy procedures that read it
     */
    record Row(
            LearnedStudy.Verdict verdict,
            String least,
            String most,
            double usual,
            double nearLow,
            double nearHigh,
            double now,
            List<Double> before,
            List<Procedure> usedBy) {}

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.fill(id, "watch", model);
        Map<String, List<LearnedStudy.Reading>> readings = desk.readings(context);
        List<Procedure> procedures = links.procedures(context.job());
        List<Row> rows = new ArrayList<>();
        for (LearnedStudy.Verdict verdict : desk.verdicts(context)) {
            rows.add(row(verdict, readings.get(verdict.value().id()), procedures));
        }
        List<String> unread =
                context.description().learned().stream()
                        .filter(l -> !readings.containsKey(l.value()))
                        .map(l -> LearnedDesk.value(context, l).name())
                        .toList();
        model.addAttribute("rows", rows);
        model.addAttribute("unread", unread);
        model.addAttribute("any", !context.description().learned().isEmpty());
        model.addAttribute("answer", answer(context, rows));
        return "watch/learned";
    }

    private static String answer(JobPages.Context context, List<Row> rows) {
        if (context.description().learned().isEmpty()) {
            return "The description of this vehicle names nothing that its modules learn.";
        }
        if (rows.isEmpty()) {
            return "What have the modules learned? Nothing was read yet; every sweep reads it too.";
        }
        List<Row> far = rows.stream().filter(r -> !r.verdict().holds()).toList();
        return far.isEmpty()
                ? "All that was learned is as usual."
                : Words.count(far.size(), "value")
                        + " of "
                        + rows.size()
                        + (far.size() == 1 ? " is" : " are")
                        + " near what can be made up for, or beyond: "
                        + far.get(0).verdict().value().name()
                        + (far.size() == 1 ? "." : " first of all.");
    }

    private static Row row(
            LearnedStudy.Verdict verdict,
            List<LearnedStudy.Reading> readings,
            List<Procedure> procedures) {
        LearnedValue its = verdict.learned();
        List<Double> before =
                readings
                        .subList(Math.max(0, readings.size() - 1 - DRAWN), readings.size() - 1)
                        .stream()
                        .map(r -> place(its, r.figure()))
                        .toList();
        double near = its.near();
        return new Row(
                verdict,
                figure(verdict, its.least()),
                figure(verdict, its.most()),
                place(its, its.usual()),
                place(its, its.usual() - near * (its.usual() - its.least())),
                place(its, its.usual() + near * (its.most() - its.usual())),
                place(its, verdict.now()),
                before,
                procedures.stream().filter(p -> reads(p, its.value())).toList());
    }

    private static boolean reads(Procedure procedure, String value) {
        return procedure.steps().stream()
                .anyMatch(s -> s.act() instanceof Act.Measure m && m.values().contains(value));
    }

    private static double place(LearnedValue learned, double figure) {
        double at = (figure - learned.least()) / (learned.most() - learned.least());
        return WIDTH * Math.max(0, Math.min(1, at));
    }

    private static String figure(LearnedStudy.Verdict verdict, double figure) {
        return String.format(Locale.ROOT, "%." + verdict.value().digits() + "f", figure);
    }

    @PostMapping
    String read(@PathVariable("id") long id, Principal who, RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        int told = desk.read(context, who.getName());
        if (told == 0) {
            flash.addFlashAttribute(
                    "error",
                    "No module told what it has learned. Turn the key on, see that the vehicle is connected, then read again.");
        } else {
            flash.addFlashAttribute(
                    "notice",
                    told
                            + " of "
                            + Words.count(context.description().learned().size(), "value")
                            + " read.");
        }
        return "redirect:/jobs/" + id + "/watch/learned";
    }
}
