package leveltally.core.people;

import static leveltally.core.people.Role.ADMINISTRATOR;
import static leveltally.core.people.Role.APPROVER;
import static leveltally.core.people.Role.AUDITOR;
import static leveltally.core.people.Role.CLERK;
import static leveltally.core.people.Role.CONTROLLER;

import java.util.EnumSet;
import java.util.Set;

/** Everything one can do here, and the roles that may; whatever is not listed may not be done. */
public enum Deed {
    READ("look at the work", CLERK, APPROVER, CONTROLLER, AUDITOR, ADMINISTRATOR),
    SET_COMPANY("set up or change the company", CONTROLLER, ADMINISTRATOR),
    ENTER_INVOICE("enter invoices", CLERK),
    CHANGE_INVOICE("cancel, correct or change invoices, and note what a vendor sent back", CLERK),
    NOTE_INVOICE("write a note on an invoice", CLERK, APPROVER, CONTROLLER),
    HOLD("hold an invoice or a vendor", CLERK, CONTROLLER),
    RELEASE_VENDOR("release a vendor's hold", CONTROLLER),
    PROPOSE_VENDOR_CHANGE("propose a change of a vendor", CLERK, CONTROLLER),
    CONFIRM_VENDOR_CHANGE("confirm or refuse a change of a vendor", CONTROLLER),
    ENTER_VENDOR("enter or bring in vendors", CLERK),
    CHANGE_VENDOR("change what is known of a vendor", CLERK, CONTROLLER),
    MERGE_VENDORS("make one vendor of two", CONTROLLER),
    APPLY_CREDIT("apply credits to invoices", CLERK),
    BRING_IN_CASH("bring in cash movements", CLERK),
    SET_CASH_FLOOR("set the cash the company keeps", CONTROLLER),
    EDIT_BATCH("make or change a batch", CLERK),
    KEEP_SCHEDULE("keep what is paid again and again", CLERK, CONTROLLER),
    SEND_BATCH("send a batch for approval", CLERK),
    APPROVE("approve or send back a batch", APPROVER, CONTROLLER),
    SET_ROUTES("propose the routes of approval", CONTROLLER),
    CONFIRM_ROUTES("confirm or refuse routes of approval", CONTROLLER, ADMINISTRATOR),
    NAME_DEPUTY("name a deputy", APPROVER, CONTROLLER, ADMINISTRATOR),
    PRINT("print checks", CLERK),
    ALIGN_PRINTER("align a printer with the stock", CLERK, CONTROLLER, ADMINISTRATOR),
    SET_PRINTERS("set up printers", ADMINISTRATOR),
    MAIL_ADVICE("send advice by mail", CLERK, CONTROLLER),
    POST("post payments", CLERK),
    CONTACT_PAYEE("ask payees about checks that were not presented", CLERK, CONTROLLER),
    CHANGE_LETTER(
            "change the letter to payees of stale checks, and when these are unclaimed", CONTROLLER, ADMINISTRATOR),
    HAND_OVER_LEDGER("hand entries to the general ledger", CLERK, CONTROLLER),
    CHOOSE_YEAR("choose whether an earlier year that was reported falls", CONTROLLER),
    RECORD_OUTSIDE("record payments made elsewhere, and match those by card", CLERK),
    UNDO_PAYMENT("void checks and reverse payments", CLERK),
    STOP_PAYMENT("stop checks, and have stops lifted", CLERK),
    REISSUE("pay a check once more", CLERK),
    AGREE_TO_UNDO("agree to what others undo", APPROVER, CONTROLLER),
    REFUSE_TO_UNDO("refuse or take back what was asked to be undone", CLERK, APPROVER, CONTROLLER),
    RECORD_CLEARING("read what the bank tells, and answer what it paid", CLERK),
    SIGN_RECONCILIATION("sign off bank and ledger", CONTROLLER),
    MAKE_BANK_FILE("make files for the bank", CLERK),
    LOCK_PERIOD("lock or unlock a period", CONTROLLER),
    OPEN_PERIOD("open a period", CONTROLLER, ADMINISTRATOR),
    SET_ACCOUNTS("set up accounts of the ledger", CONTROLLER, ADMINISTRATOR),
    SET_BANK_ACCOUNT("set up bank accounts and their ways to pay", ADMINISTRATOR),
    SET_SIGNING("say who signs checks, and how large they may be", CONTROLLER),
    SET_LAYOUT("change how checks stand on paper", CONTROLLER, ADMINISTRATOR),
    CHANGE_BANK_ACCOUNT("change a bank account's name, floor, smallest payment and runs", CONTROLLER, ADMINISTRATOR),
    KEEP_STOCK("receive and open boxes of stock", CLERK, CONTROLLER, ADMINISTRATOR),
    EXPLAIN_NUMBER("say where the paper of a number went", CLERK, CONTROLLER),
    CORRECT_NUMBERS("propose or confirm the next number of a series", CONTROLLER, ADMINISTRATOR),
    READ_TRAIL("read the whole trail", CONTROLLER, AUDITOR, ADMINISTRATOR),
    RUN_PROOF("run the proof", CLERK, APPROVER, CONTROLLER, AUDITOR, ADMINISTRATOR),
    RETRY_MAIL("send mail again", CONTROLLER, ADMINISTRATOR),
    CHANGE_PEOPLE("add, change and disable people", ADMINISTRATOR),
    CONFIRM_PEOPLE("confirm or refuse roles and passwords others gave", CONTROLLER, ADMINISTRATOR),
    OWN_SESSION("see and end one's own sessions", CLERK, APPROVER, CONTROLLER, AUDITOR, ADMINISTRATOR);

    private final String words;
    private final Set<Role> roles;

    Deed(String words, Role first, Role... rest) {
        this.words = words;
        this.roles = EnumSet.of(first, rest);
    }

    public String words() {
        return words;
    }

    public Set<Role> roles() {
        return EnumSet.copyOf(roles);
    }

    public boolean allowedTo(Set<Role> held) {
        return held.stream().anyMatch(roles::contains);
    }
}
