#include "core/check/finding_kinds.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <regex>
#include <set>

#include "core/format/output.h"
#include "support/places.h"

namespace erdwerk::check {
namespace {

std::string textOf(const std::filesystem::path& path) {
    return format::readFile(path.string()).value_or("");
}

std::string checksSource() {
    std::string out;
    for (const auto& entry :
         std::filesystem::directory_iterator(std::string(test::sourceFolder) + "/src/core/check"))
        if (entry.path().extension() == ".cpp") out += textOf(entry.path());
    return out;
}

TEST(FindingKinds, EachIsDeclaredOnceAndSomeCheckSaysIt) {
    const std::string checks = checksSource();
    ASSERT_GT(checks.size(), 10000U);
    std::set<std::string_view> ids;
    for (const auto& kind : kinds::all) {
        EXPECT_TRUE(ids.insert(kind.id).second) << kind.id;
        EXPECT_TRUE(std::regex_match(std::string(kind.id), std::regex("[a-z]+(-[a-z]+)*"))) << kind.id;
        // In the code by its name: the id without hyphens.
        std::string name;
        for (std::size_t i = 0; i < kind.id.size(); ++i)
            name += kind.id[i] == '-' ? static_cast<char>(kind.id[++i] - 'a' + 'A') : kind.id[i];
        EXPECT_NE(checks.find("kinds::" + name), std::string::npos) << kind.id;
    }
}

TEST(FindingKinds, NoCheckSpeaksOfAKindByItsText) {
    const std::string checks = checksSource();
    for (const auto& kind : kinds::all)
        if (kind.id.find('-') != std::string_view::npos)
            EXPECT_EQ(checks.find('"' + std::string(kind.id) + '"'), std::string::npos) << kind.id;
}

TEST(FindingKinds, TheListOfFindingsIsComplete) {
    const std::string page = textOf(std::string(test::sourceFolder) + "/docs/findings.md");
    std::set<std::string> rows;
    const std::regex row("\n\\| `([a-z-]+)` \\| ([^|]+) \\|");
    for (std::sregex_iterator it(page.begin(), page.end(), row), end; it != end; ++it)
        rows.insert((*it)[1].str() + ": " + (*it)[2].str());
    std::set<std::string> declared;
    for (const auto& kind : kinds::all)
        declared.insert(std::string(kind.id) + ": " + std::string(kind.meaning));
    EXPECT_EQ(rows, declared);
}

}  // namespace
}  // namespace erdwerk::check
