package leveltally.server.reports;

import java.util.List;
import leveltally.core.reports.Report;

/** A report to be read on a screen. */
record ReportView(String title, List<String> facts, List<ReportHeadView> heads, List<ReportLineView> lines) {
    record ReportHeadView(String title, int share, boolean right) {}

    record ReportLineView(Report.Kind kind, List<String> cells) {}

    static ReportView of(Report report) {
        return new ReportView(
                report.title(),
                report.facts(),
                report.heads().stream()
                        .map(head -> new ReportHeadView(head.title(), head.share(), head.right()))
                        .toList(),
                report.lines().stream()
                        .map(line -> new ReportLineView(line.kind(), line.cells()))
                        .toList());
    }
}
