package leveltally.server.bankfiles;

import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.server.bankfiles.BankAnswers.RefusedItem;

/** What the bank's answer to files of one purpose comes to; one for each purpose, in the room of what it tells. */
public interface FileHeard {
    FilePurpose purpose();

    /** The bank refused all of it: what it told waits again. */
    void refused(long file);

    /**
     * The bank took the file but for these, which wait again.
     *
     * @throws Refusal when the file has no such item
     */
    void refused(long file, List<RefusedItem> items);
}
