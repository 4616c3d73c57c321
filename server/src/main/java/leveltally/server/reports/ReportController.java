package leveltally.server.reports;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Csv;
import leveltally.server.frame.Needs;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.core.io.Resource;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Every report: to be read on a screen, printed, and taken away. */
@RestController
@RequestMapping("/api/reports/{name}")
@Needs(Deed.READ)
class ReportController {
    private final Map<String, ReportSource> sources;
    private final ReportFiles files;

    ReportController(List<ReportSource> sources, ReportFiles files) {
        this.sources = sources.stream().collect(Collectors.toMap(ReportSource::name, Function.identity()));
        this.files = files;
    }

    private ReportSource source(Actor by, String name) {
        by.mayDo(Deed.READ);
        ReportSource source = sources.get(name);
        if (source == null) {
            throw Refusal.notFound("no-report", "There is no such report. Choose one shown.");
        }
        return source;
    }

    @GetMapping
    ReportView report(Actor by, @PathVariable String name, @ParameterObject @ModelAttribute ReportAsked asked) {
        return ReportView.of(source(by, name).of(by, asked));
    }

    @GetMapping(value = "/pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> pdf(
            Actor by, @PathVariable String name, @ParameterObject @ModelAttribute ReportAsked asked) {
        return files.pdf(by, source(by, name).of(by, asked));
    }

    @GetMapping(value = "/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(
            Actor by, @PathVariable String name, @ParameterObject @ModelAttribute ReportAsked asked) {
        return files.csv(asked.fileName(name), source(by, name).of(by, asked));
    }
}
