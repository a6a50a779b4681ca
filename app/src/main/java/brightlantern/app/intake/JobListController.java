package brightlantern.app.intake;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Takes;
import brightlantern.app.link.VehicleLinks;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** All jobs, and the log of what was commanded. */
@Controller
class JobListController {
    final Jobs jobs;
    private final VehicleLinks links;
    private final CommandLog log;
    private final Takes takes;

    JobListController(Jobs jobs, VehicleLinks links, CommandLog log, Takes takes) {
        this.jobs = jobs;
        this.links = links;
        this.log = log;
        this.takes = takes;
    }

    @GetMapping("/")
    String jobs(
            @RequestParam(name = "find", defaultValue = "") String find,
            @RequestParam(name = "state", defaultValue = "") String state,
            @RequestParam(name = "sort", defaultValue = "") String sort,
            Model model) {
        model.addAttribute(
                "list",
                JobList.of(jobs.all(), links.library(), takes.running(), find, state, sort));
        model.addAttribute("mistakes", links.library().mistakes());
        return "intake/jobs";
    }

    @GetMapping("/log")
    String log(Model model) {
        model.addAttribute("lines", log.newest(500));
        return "intake/log";
    }
}
