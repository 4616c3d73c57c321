package leveltally.server.reports;

import leveltally.core.people.Actor;
import leveltally.core.reports.Report;

/** Something that can be listed: on a screen, on paper, as a file. */
public interface ReportSource {
    /** By which it is asked for, and under which its file is kept. */
    String name();

    /** @throws leveltally.core.Refusal when what it is about is not named, or is not there */
    Report of(Actor by, ReportAsked asked);
}
