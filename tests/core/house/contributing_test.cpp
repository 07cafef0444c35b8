// CONTRIBUTING.md and the glossary are true: every file and every name that their tables speak of is there.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <cctype>
#include <filesystem>
#include <fstream>
#include <regex>
#include <set>
#include <sstream>

#include "support/places.h"

namespace erdwerk {
namespace {

namespace fs = std::filesystem;

std::string read(const fs::path& path) {
    const std::ifstream file(path);
    std::ostringstream out;
    out << file.rdbuf();
    return out.str();
}

/// What stands between backticks in the rows of the table.
std::set<std::string> spokenOf(const std::string& page) {
    std::set<std::string> out;
    std::istringstream lines(page);
    const std::regex code("`([^`]+)`");
    for (std::string line; std::getline(lines, line);) {
        if (line.empty() || line.front() != '|') continue;
        for (std::sregex_iterator it(line.begin(), line.end(), code), end; it != end; ++it)
            out.insert((*it)[1]);
    }
    return out;
}

/// "routes.*" and "…_node.cpp" are patterns.
std::regex asRegex(std::string name) {
    if (name.back() == '/') name.pop_back();
    std::string out = "(.*/)?";
    for (std::size_t i = 0; i < name.size(); ++i) {
        if (name.compare(i, 3, "…") == 0) {
            out += "[^/]*";
            i += 2;
        } else if (name[i] == '*') {
            out += "[^/]*";
        } else {
            if (std::string(".+()").find(name[i]) != std::string::npos) out += '\\';
            out += name[i];
        }
    }
    return std::regex(out);
}

class House {
public:
    House() {
        for (const char* part : {"src", "tests", "tools", "docs"})
            for (const auto& entry : fs::recursive_directory_iterator(root_ / part)) {
                files_.push_back(fs::relative(entry.path(), root_).generic_string());
                // The glossary is no proof of itself.
                if (entry.is_regular_file() && *part != 'd') words_ += read(entry.path());
            }
        for (const auto& entry : fs::directory_iterator(root_))
            files_.push_back(entry.path().filename().string());
    }
    [[nodiscard]] bool hasFile(const std::string& name) const {
        const std::regex pattern = asRegex(name);
        return std::any_of(files_.begin(), files_.end(),
                           [&](const std::string& file) { return std::regex_match(file, pattern); });
    }
    [[nodiscard]] bool hasWord(const std::string& word) const {
        const auto inWord = [&](std::size_t i) {
            return i < words_.size() &&
                   (std::isalnum(static_cast<unsigned char>(words_[i])) != 0 || words_[i] == '_');
        };
        for (auto at = words_.find(word); at != std::string::npos; at = words_.find(word, at + 1))
            if (!(at > 0 && inWord(at - 1)) && !inWord(at + word.size())) return true;
        return false;
    }
    [[nodiscard]] std::string page(const char* name) const { return read(root_ / name); }

private:
    fs::path root_ = test::sourceFolder;
    std::vector<std::string> files_;
    std::string words_;
};

/// How many files and names a page speaks of; those that are not there are failures.
std::pair<std::size_t, std::size_t> checked(const char* page) {
    const House house;
    std::size_t files = 0;
    std::size_t names = 0;
    const std::regex name("([A-Za-z_]\\w*::)*[A-Za-z_]\\w*(\\(\\))?");
    for (const std::string& spoken : spokenOf(house.page(page))) {
        if (spoken.find(' ') != std::string::npos) continue;  // a command
        if (std::regex_match(spoken, name)) {
            ++names;
            const auto last = spoken.rfind(':');
            const std::string word = spoken.substr(last == std::string::npos ? 0 : last + 1);
            EXPECT_TRUE(house.hasWord(word.substr(0, word.find('(')))) << page << ": " << spoken;
        } else if (spoken.find('.') != std::string::npos || spoken.find('/') != std::string::npos) {
            ++files;
            EXPECT_TRUE(house.hasFile(spoken)) << page << ": " << spoken;
        }
    }
    return {files, names};
}

TEST(Contributing, EveryFileAndNameOfTheTableIsThere) {
    const auto [files, names] = checked("CONTRIBUTING.md");
    EXPECT_GT(files, 25U);
    EXPECT_GT(names, 12U);
}

TEST(Glossary, EveryFileAndNameIsThere) {
    const auto [files, names] = checked("docs/glossary.md");
    EXPECT_GT(files, 25U);
    EXPECT_GT(names, 30U);
}

TEST(Contributing, WhatIsNotThereIsNotFound) {
    const House house;
    EXPECT_FALSE(house.hasFile("src/app/tools/no_such_tool.cpp"));
    EXPECT_FALSE(house.hasFile("no_*_such.h"));
    EXPECT_FALSE(
        house.hasWord("NoSuch"
                      "NameAnywhere"));
    EXPECT_TRUE(house.hasFile("src/core/derive/…_node.cpp"));
    EXPECT_TRUE(house.hasFile("src/app/tools/"));
}

}  // namespace
}  // namespace erdwerk
