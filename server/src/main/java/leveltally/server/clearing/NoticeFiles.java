package leveltally.server.clearing;

import java.nio.charset.StandardCharsets;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import org.springframework.stereotype.Service;

/** Files in which banks speak of payments by file. */
@Service
public class NoticeFiles {
    private static final int LOOKED_AT = 200;

    private final StatusReports reports;
    private final BankNotices notices;

    NoticeFiles(StatusReports reports, BankNotices notices) {
        this.reports = reports;
        this.notices = notices;
    }

    /** A status report is XML; everything else must be a file of ACH. */
    public String read(Actor by, BankAccountId account, byte[] content) {
        String begins = new String(content, 0, Math.min(LOOKED_AT, content.length), StandardCharsets.UTF_8)
                .replace("\uFEFF", "")
                .stripLeading();
        return begins.startsWith("<")
                ? reports.read(by, account, content)
                : notices.read(by, account, content).inWords();
    }
}
