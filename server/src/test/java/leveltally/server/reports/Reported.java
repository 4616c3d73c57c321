package leveltally.server.reports;

import leveltally.core.batches.BatchId;
import leveltally.core.reports.Report;
import leveltally.server.App;

/** What this package keeps to itself, for tests beside it. */
public final class Reported {
    private Reported() {}

    public static Report payments(BatchId batch) {
        return App.bean(PaymentsList.class).of(App.ines(), new ReportAsked(batch.value(), null, null));
    }
}
