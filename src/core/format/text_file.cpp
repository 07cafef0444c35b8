#include "core/format/text_file.h"

#include <cpl_conv.h>
#include <cpl_string.h>

#include <algorithm>
#include <memory>

#include "core/base/notation.h"
#include "core/format/output.h"

namespace erdwerk::format {

namespace {

std::string latin1ToUtf8(const std::string& text) {
    const std::unique_ptr<char, decltype(&CPLFree)> out(
        CPLRecode(text.c_str(), CPL_ENC_ISO8859_1, CPL_ENC_UTF8), &CPLFree);
    return out.get();
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
    std::string text(bytes);
    return CPLIsUTF8(text.data(), static_cast<int>(text.size())) != 0 ? text : latin1ToUtf8(text);
}

Result<std::string> readTextFile(const std::string& path) {
    const auto bytes = readFile(path);
    if (!bytes) return tl::unexpected(bytes.error());
    return asText(*bytes, path);
}

}  // namespace erdwerk::format
