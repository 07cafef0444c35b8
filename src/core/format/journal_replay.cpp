#include <algorithm>
#include <filesystem>

#include "core/format/journal.h"
#include "core/format/journal_line.h"
#include "core/format/output.h"

namespace erdwerk::format {

using document::Document;
using nlohmann::json;

std::size_t Replayed::leftBehind() const {
    return static_cast<std::size_t>(
        std::count_if(entries.begin(), entries.end(), [](const auto& e) { return !e.broughtBack; }));
}

namespace {

/// Journals of before the checksums: plain lines, counted by their place.
std::optional<json> plainLine(std::string_view line) {
    json content = json::parse(line, nullptr, false);
    if (content.is_discarded() || !content.is_object()) return std::nullopt;
    return content;
}

class Reader {
public:
    Reader(std::string path, const SaveMark& save, Document document)
        : path_(std::move(path)), save_(save), document_(std::move(document)) {}

    Replayed run(std::string_view text) {
        for (std::size_t from = 0; from < text.size();) {
            const std::size_t end = std::min(text.find('\n', from), text.size());
            line(text.substr(from, end - from));
            from = end + 1;
        }
        if (number_ == 0) {
            out_.kind = Replayed::Kind::Damaged;
            out_.problem = "the journal is empty";
        }
        return std::move(out_);
    }

private:
    void line(std::string_view text) {
        ++number_;
        if (number_ == 1) return head(text);
        if (text.empty() && plain_) return;
        const auto content = plain_ ? plainLine(text) : unsealed(text);
        JournalEntry entry;
        if (content) {
            entry.what = content->value("what", "");
            entry.when = content->value("when", "");
            entry.change = content->value("change", plain_ ? ++plainChange_ : std::uint64_t{0});
        }
        entry.reason = reasonAgainst(content, entry);
        if (entry.reason.empty() && entry.change <= skip_) {
            entry.broughtBack = true;  // the save holds it
        } else if (entry.reason.empty()) {
            bringBack(*content, entry);
        }
        if (!entry.reason.empty() && out_.problem.empty())
            out_.problem = "line " + std::to_string(number_) + ": " + entry.reason;
        if (entry.broughtBack) last_ = entry.change;
        out_.entries.push_back(std::move(entry));
    }

    void head(std::string_view text) {
        auto content = unsealed(text);
        if (!content) {
            content = plainLine(text);
            plain_ = content && content->value("erdwerk-journal", 0) == 1;
            if (!plain_) {
                out_.kind = Replayed::Kind::Damaged;
                out_.problem = "line 1: it is damaged, so it cannot be told which save the journal continues";
                return;
            }
        }
        const std::string continues = content->value("continues", "");
        if (continues == save_.stamp) {
            out_.kind = Replayed::Kind::Fits;
        } else if (!save_.follows.empty() && continues == save_.follows) {
            out_.kind = Replayed::Kind::Fits;
            skip_ = save_.heldChanges;
        } else {
            out_.kind = Replayed::Kind::Other;
            out_.problem = "the journal continues another save of the project";
        }
    }

    [[nodiscard]] std::string reasonAgainst(const std::optional<json>& content,
                                            const JournalEntry& entry) const {
        if (out_.kind != Replayed::Kind::Fits) return "it is not known to continue this save";
        if (!content) return "it is damaged";
        if (!out_.problem.empty()) return "a line before it could not be read";
        if (entry.change != last_ + 1) return "change " + std::to_string(last_ + 1) + " is missing before it";
        return {};
    }

    void bringBack(const json& content, JournalEntry& entry) {
        auto next = applyChange(content, document_);
        if (!next) {
            entry.reason = "it does not apply: " + next.error().text;
            return;
        }
        document_ = std::move(*next);
        entry.broughtBack = true;
        out_.what.push_back(entry.what);
        out_.documents.push_back(document_);
    }

    std::string path_;
    const SaveMark& save_;
    Document document_;
    Replayed out_;
    long number_ = 0;
    bool plain_ = false;
    std::uint64_t plainChange_ = 0;
    std::uint64_t skip_ = 0;
    std::uint64_t last_ = 0;
};

}  // namespace

Replayed replay(const std::string& path, const SaveMark& save, const Document& document) {
    std::error_code ignored;
    if (!std::filesystem::exists(path, ignored)) return {};
    const auto text = readFile(path);
    if (!text) {
        Replayed out;
        out.kind = Replayed::Kind::Damaged;
        out.problem = "the journal cannot be read: " + text.error().text;
        return out;
    }
    return Reader(path, save, document).run(*text);
}

Result<std::string> setAside(const std::string& path) {
    const std::filesystem::path whole(path);
    for (int i = 1;; ++i) {
        const std::string kept = (whole.parent_path() / (whole.stem().string() + "-kept-" +
                                                         std::to_string(i) + whole.extension().string()))
                                     .string();
        std::error_code error;
        if (std::filesystem::exists(kept, error)) continue;
        std::filesystem::copy_file(path, kept, error);
        if (error) return fail(ErrorCode::Io, "cannot be kept under another name: " + error.message(), path);
        return kept;
    }
}

}  // namespace erdwerk::format
