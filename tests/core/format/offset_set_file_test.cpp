#include "core/format/offset_set_file.h"

#include "core/linework/offset_row.h"
#include "core/operations/derived_lines.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::valueOf;

objects::OffsetSet kerb() {
    objects::OffsetSet out;
    for (const char* row : {"0.3,-2%", "0,+0.12", "1.5,3:1", "2,="})
        out.rows.push_back(valueOf(linework::parseOffsetRow(row)));
    out.options = {true, true, linework::OutsideCorner::Round};
    return out;
}

TEST(OffsetSetFile, ComesBackAsItWas) {
    test::Folder folder;
    ASSERT_TRUE(writeOffsetSet(folder / "kerb.json", "Lane kerb", kerb()));
    const auto [name, set] = valueOf(readOffsetSet(folder / "kerb.json"));
    EXPECT_EQ(name, "Lane kerb");
    EXPECT_EQ(set, kerb());
}

TEST(OffsetSetFile, BadOnesSayWhere) {
    test::Folder folder;
    const auto reason = [&](const std::string& text) {
        const auto read = readOffsetSet(folder.file("bad.json", text));
        return read ? std::string("read") : read.error().message();
    };
    const std::string rest = R"("side": "right", "measured": "from the line", "corners": "mitre"})";
    EXPECT_THAT(reason("{\n\n\"rows\": [}"), testing::HasSubstr("bad.json:3"));
    EXPECT_THAT(reason(""), testing::HasSubstr("no JSON"));
    EXPECT_THAT(reason("[1, 2]"), testing::HasSubstr("bad.json"));
    EXPECT_THAT(reason(R"({"rows": ["9,9"], )" + rest), testing::HasSubstr("'9'"));
    EXPECT_THAT(reason(R"({"rows": [3], )" + rest), testing::HasSubstr("bad.json"));
    EXPECT_THAT(reason(R"({"rows": [], )" + rest), testing::HasSubstr("at least one row"));
    EXPECT_THAT(reason(R"({"rows": ["3"], "side": "up", "measured": "from the line", "corners": "mitre"})"),
                testing::HasSubstr("'up' is no side"));
    EXPECT_EQ(reason(R"({"rows": ["3"], )" + rest), "read");
    EXPECT_FALSE(readOffsetSet(folder / "none.json"));
    EXPECT_FALSE(writeOffsetSet("/nowhere/at/all/kerb.json", "Kerb", kerb()));
}

TEST(OffsetSets, AreKeptByNameAndTyped) {
    const document::Document empty;
    const auto saved = valueOf(operations::saveOffsetSet("Kerb", kerb())(empty)).document;
    const ObjectId set = saved.byName<objects::OffsetSet>("Kerb");
    ASSERT_TRUE(set);
    // The same name again is the same set.
    auto other = kerb();
    other.rows.pop_back();
    const auto again = valueOf(operations::saveOffsetSet("Kerb", other)(saved)).document;
    EXPECT_EQ(again.all<objects::OffsetSet>().size(), 1U);
    EXPECT_EQ(again.get<objects::OffsetSet>(set)->rows.size(), 3U);
    const auto typed = valueOf(operations::setTypedRows(set, "1,2%; 2,+0.1")(saved)).document;
    EXPECT_EQ(typed.get<objects::OffsetSet>(set)->rows.size(), 2U);
    EXPECT_FALSE(operations::setTypedRows(set, "1,2%; kerb")(saved));
    EXPECT_FALSE(operations::saveOffsetSet(" ", kerb())(empty));
    EXPECT_FALSE(operations::saveOffsetSet("Kerb", {})(empty));
}

}  // namespace
}  // namespace erdwerk::format
