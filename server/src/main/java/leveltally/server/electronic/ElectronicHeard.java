package leveltally.server.electronic;

import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.server.bankfiles.BankAnswers.RefusedItem;
import leveltally.server.bankfiles.FileHeard;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Payments the bank refused wait for another file; whether it is all of a file or some of them. */
@Component
class ElectronicHeard implements FileHeard {
    private final ElectronicItems items;
    private final Announcements announcements;

    ElectronicHeard(ElectronicItems items, Announcements announcements) {
        this.announcements = announcements;
        this.items = items;
    }

    @Override
    public FilePurpose purpose() {
        return FilePurpose.ELECTRONIC;
    }

    @Override
    @Transactional
    public void refused(long file) {
        items.waitAgain(file);
    }

    @Override
    @Transactional
    public void refused(long file, List<RefusedItem> refused) {
        for (RefusedItem one : refused) {
            if (!items.refuse(file, one.number(), one.kept())
                    && !announcements.refuse(file, one.number(), one.kept())) {
                throw Refusal.invalidField(
                        "not-in-file",
                        "refused",
                        "This file carries no payment " + one.number()
                                + " that is not in the ledger yet. What is posted is reversed; look at the payment.");
            }
        }
    }
}
