#include "core/format/text_file.h"

#include <cpl_conv.h>
#include <cpl_string.h>

#include <algorithm>
#include <memory>

#include "core/base/notation.h"
#include "core/format/output.h"

namespace erdwerk::format {

namespace {

/// GDAL counts bytes in an int: what it is given at once stays far below.
constexpr std::size_t most = 1 << 20;

bool isUtf8(std::string_view text) {
    while (!text.empty()) {
        std::size_t size = std::min(most, text.size());
        // Not in the middle of a character, which has four bytes at the most.
        for (int k = 0; k < 3 && size < text.size() && (text[size] & 0xC0) == 0x80; ++k) --size;
        if (CPLIsUTF8(text.data(), static_cast<int>(size)) == 0) return false;
        text.remove_prefix(size);
    }
    return true;
}

std::string latin1ToUtf8(std::string_view text) {
    std::string out;
    for (std::size_t from = 0; from < text.size(); from += most) {
        const std::string piece(text.substr(from, most));
        const std::unique_ptr<char, decltype(&CPLFree)> recoded(
            CPLRecode(piece.c_str(), CPL_ENC_ISO8859_1, CPL_ENC_UTF8), &CPLFree);
        out += recoded.get();
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
    // Whatever is no UTF-8 is taken for Latin 1, in which every byte is a character.
    return isUtf8(bytes) ? std::string(bytes) : latin1ToUtf8(bytes);
}

Result<std::string> readTextFile(const std::string& path) {
    const auto bytes = readFile(path);
    if (!bytes) return tl::unexpected(bytes.error());
    return asText(*bytes, path);
}

}  // namespace erdwerk::format
