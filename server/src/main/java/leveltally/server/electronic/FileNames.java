package leveltally.server.electronic;

import leveltally.core.electronic.AchAgreement;

/** What files of payments are called, to banks and to people. */
final class FileNames {
    private FileNames() {}

    /** By which the bank's answer names the file; no two of the company are alike. */
    static String id(ElectronicWay way, long serial) {
        return way.prefix() + "F" + way.account().value() + "-" + serial;
    }

    static String name(ElectronicWay way, String id) {
        return (way.agreement() instanceof AchAgreement ? "ach-" : "transfers-")
                + id
                + (way.agreement() instanceof AchAgreement ? ".ach" : ".xml");
    }
}
