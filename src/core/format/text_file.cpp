#include "core/format/text_file.h"

#include <algorithm>

#include "core/base/notation.h"
#include "core/format/output.h"

namespace erdwerk::format {

namespace {

bool isUtf8(std::string_view text) {
    for (std::size_t i = 0; i < text.size();) {
        const auto c = static_cast<unsigned char>(text[i]);
        const std::size_t more = c < 0x80         ? 0
                                 : (c >> 5) == 6  ? 1
                                 : (c >> 4) == 14 ? 2
                                 : (c >> 3) == 30 ? 3
                                                  : 9;
        if (more == 9 || i + more >= text.size()) return more != 9 && i + more + 1 == text.size();
        for (std::size_t k = 1; k <= more; ++k)
            if ((static_cast<unsigned char>(text[i + k]) >> 6) != 2) return false;
        i += more + 1;
    }
    return true;
}

std::string latin1ToUtf8(std::string_view text) {
    std::string out;
    for (const char raw : text) {
        const auto c = static_cast<unsigned char>(raw);
        if (c < 0x80) {
            out += raw;
        } else {
            out += static_cast<char>(0xC0 | (c >> 6));
            out += static_cast<char>(0x80 | (c & 0x3F));
        }
    }
    return out;
}

}  // namespace

Result<std::string> asText(std::string_view bytes, const std::string& file) {
    if (bytes.substr(0, 3) == "\xEF\xBB\xBF") bytes.remove_prefix(3);
    if (bytes.substr(0, 2) == "\xFF\xFE" || bytes.substr(0, 2) == "\xFE\xFF")
        return badInput("is UTF-16 text; save it as UTF-8", file, 1);
    if (const auto nul = bytes.find('\0'); nul != std::string_view::npos)
        return badInput(
            "is not a text file", file,
            1 + std::count(bytes.begin(), bytes.begin() + static_cast<std::ptrdiff_t>(nul), '\n'));
    if (trimmed(bytes).empty()) return badInput("the file is empty", file);
    return isUtf8(bytes) ? std::string(bytes) : latin1ToUtf8(bytes);
}

Result<std::string> readTextFile(const std::string& path) {
    const auto bytes = readFile(path);
    if (!bytes) return tl::unexpected(bytes.error());
    return asText(*bytes, path);
}

}  // namespace erdwerk::format
