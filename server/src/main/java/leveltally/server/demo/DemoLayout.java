package leveltally.server.demo;

import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.StandardBankLayouts;

/** The positive pay layout of the made-up Skerrow Trust: fixed width, 80 characters a record. */
final class DemoLayout {
    private DemoLayout() {}

    static Layout skerrowTrust() {
        Layout plain = StandardBankLayouts.eightyCharacters();
        return new Layout(
                "Skerrow Trust, 80 characters",
                plain.encoding(),
                plain.byteOrderMark(),
                plain.lineEnd(),
                plain.shape(),
                plain.fileName(),
                plain.records());
    }
}
