package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class ExpectedRowsTest {
    private static final String ROWS = "id,name\n1,heron\n2,egret\n";

    @DataProvider
    public Object[][] rows() {
        return new Object[][] {
            {"the same", ExpectedRows.Order.AS_GIVEN, ROWS, null},
            {
                "another order where it matters",
                ExpectedRows.Order.AS_GIVEN,
                "id,name\n2,egret\n1,heron\n",
                "row 1 is another"
            },
            {"another order where it does not", ExpectedRows.Order.ANY, "id,name\n2,egret\n1,heron\n", null},
            {"another row", ExpectedRows.Order.ANY, "id,name\n2,egret\n1,stork\n", "a row is another"},
            {"a row twice for another", ExpectedRows.Order.ANY, "id,name\n2,egret\n2,egret\n", "a row is another"},
            {"a row less", ExpectedRows.Order.ANY, "id,name\n1,heron\n", "rows: 1, not 2"},
            {"other columns", ExpectedRows.Order.ANY, "id,bird\n1,heron\n2,egret\n", "the columns are others"},
            {"nothing", ExpectedRows.Order.ANY, "", "there are no columns to compare"},
        };
    }

    @Test(dataProvider = "rows")
    public void tellsWhereRowsAreOtherwise(
            String name, ExpectedRows.Order order, String came, @org.jspecify.annotations.Nullable String difference) {
        assertThat(new ExpectedRows(ROWS, order).difference(came).orElse(null))
                .as(name)
                .isEqualTo(difference);
    }
}
