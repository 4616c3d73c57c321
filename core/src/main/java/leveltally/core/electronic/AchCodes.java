package leveltally.core.electronic;

import java.util.Map;

/** Why entries come back and what changes, in words (codes of the NACHA rules, those a sender of credits meets). */
public final class AchCodes {
    private static final Map<String, String> WORDS = Map.ofEntries(
            Map.entry("R01", "there was not enough money"),
            Map.entry("R02", "the account is closed"),
            Map.entry("R03", "there is no such account, or it is not the payee's"),
            Map.entry("R04", "the account number cannot be one"),
            Map.entry("R06", "our bank asked for it back"),
            Map.entry("R07", "the payee took the authorization back"),
            Map.entry("R08", "the payment was stopped"),
            Map.entry("R09", "the money was not collected yet"),
            Map.entry("R10", "the payee says it was not authorized"),
            Map.entry("R12", "the branch was sold to another bank"),
            Map.entry("R13", "there is no such bank in the network"),
            Map.entry("R14", "whoever acts for the payee has died or cannot act"),
            Map.entry("R15", "the payee has died"),
            Map.entry("R16", "the account is frozen"),
            Map.entry("R17", "fields of the entry could not be processed"),
            Map.entry("R20", "the account takes no such payments"),
            Map.entry("R21", "the company identification is not valid"),
            Map.entry("R22", "the identification number of the payee is not valid"),
            Map.entry("R23", "the payee refused it"),
            Map.entry("R24", "it came twice"),
            Map.entry("R26", "a field that must be there is missing"),
            Map.entry("R28", "the check digit of the routing number does not fit"),
            Map.entry("R29", "the company says it was not authorized"),
            Map.entry("R31", "the banks agreed to return it"),
            Map.entry("R34", "the payee's bank may take part only in some payments"),
            Map.entry("R61", "a return went to the wrong bank"),
            Map.entry("R83", "a payment abroad could not be settled"),
            Map.entry("R85", "a payment abroad was coded as one at home"),
            Map.entry("C01", "another account number"),
            Map.entry("C02", "another routing number"),
            Map.entry("C03", "another routing number and account number"),
            Map.entry("C04", "another name"),
            Map.entry("C05", "another kind of account"),
            Map.entry("C06", "another account number and kind of account"),
            Map.entry("C07", "another routing number, account number and kind of account"),
            Map.entry("C09", "another identification number"));

    private AchCodes() {}

    /** In words; the code itself where it is none of these. */
    public static String words(String code) {
        return WORDS.getOrDefault(code, "the bank's code " + code);
    }
}
