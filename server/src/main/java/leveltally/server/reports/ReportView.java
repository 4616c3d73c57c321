package leveltally.server.reports;

import java.util.List;
import leveltally.core.reports.Report;
import org.jspecify.annotations.Nullable;

/** A report to be read on a screen. */
record ReportView(String title, List<String> facts, List<ReportHeadView> heads, List<ReportLineView> lines) {
    record ReportHeadView(String title, int share, boolean right) {}

    /** @param leads the page on which what it counts is looked at; null for none */
    record ReportLineView(
            Report.Kind kind, List<String> cells, @Nullable String leads) {}

    static ReportView of(Report report) {
        return new ReportView(
                report.title(),
                report.facts(),
                report.heads().stream()
                        .map(head -> new ReportHeadView(head.title(), head.share(), head.right()))
                        .toList(),
                report.lines().stream()
                        .map(line -> new ReportLineView(line.kind(), line.cells(), line.leads()))
                        .toList());
    }
}
