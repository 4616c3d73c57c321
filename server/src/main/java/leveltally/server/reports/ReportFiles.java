package leveltally.server.reports;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.Dates;
import leveltally.core.paper.Measure;
import leveltally.core.paper.PageSize;
import leveltally.core.people.Actor;
import leveltally.core.reports.Report;
import leveltally.core.reports.ReportPages;
import leveltally.server.company.Companies;
import leveltally.server.frame.Csv;
import leveltally.server.paper.Pdf;
import org.springframework.core.io.Resource;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;

/** Reports as files. */
@Component
public class ReportFiles {
    private final Companies companies;
    private final Measure measure;

    ReportFiles(Companies companies, Measure measure) {
        this.companies = companies;
        this.measure = measure;
    }

    /** On US letter, to be read and filed. */
    ResponseEntity<byte[]> pdf(Actor by, Report report) {
        byte[] pdf = drawn(report, Dates.inWords(by.today()) + ", by " + by.name());
        return ResponseEntity.ok().contentType(MediaType.APPLICATION_PDF).body(pdf);
    }

    /** @param foot what its pages say beside the company */
    public byte[] drawn(Report report, String foot) {
        return Pdf.of(
                report.title(),
                ReportPages.of(report, PageSize.LETTER, companies.company().name() + ", " + foot, measure));
    }

    /** Each row with the group it stands in; figures plain, totals named in the first column. */
    ResponseEntity<Resource> csv(String fileName, Report report) {
        List<String> heads = new ArrayList<>(List.of("group"));
        report.heads().forEach(head -> heads.add(head.title()));
        List<List<String>> rows = new ArrayList<>();
        String group = "";
        for (Report.Line line : report.lines()) {
            if (line.kind() == Report.Kind.GROUP) {
                group = String.join("; ", line.cells());
                continue;
            }
            List<String> row = new ArrayList<>(List.of(line.kind() == Report.Kind.TOTAL ? "total" : group));
            for (int i = 0; i < line.cells().size(); i++) {
                String cell = line.cells().get(i);
                row.add(report.heads().get(i).right() ? cell.replace(",", "") : cell);
            }
            rows.add(row);
        }
        return Csv.answer(fileName, heads, rows.stream());
    }
}
