#include "core/parcel/call_split.h"

#include <algorithm>

namespace erdwerk::parcel {

namespace {

bool isAt(Words words, std::size_t at, std::string_view list) {
    return at < words.size() && oneOf(words[at], list);
}

/// Past "(1)", "1)", "1.", "Course 1:" with that number; nothing where there is none.
std::optional<std::size_t> pastCount(Words words, std::size_t at, double wanted) {
    const bool opens = words[at].startsLine || at == 0 || oneOf(words[at - 1], ": ; , . and");
    if (!opens) return std::nullopt;
    std::size_t i = at;
    const bool named = isAt(words, i, "course call");
    if (named) ++i;
    if (named && isAt(words, i, "no")) i += isAt(words, i + 1, ".") ? 2 : 1;
    const bool bracket = isAt(words, i, "(");
    if (bracket) ++i;
    if (i >= words.size() || !words[i].isNumber() || words[i].spelled || words[i].decimals > 0 ||
        words[i].value != wanted)
        return std::nullopt;
    if (bracket) return isAt(words, i + 1, ")") ? std::optional(i + 2) : std::nullopt;
    if (!isAt(words, i + 1, named ? ") . : ," : ") .") || !words[i + 1].glued) return std::nullopt;
    // "48.5": a number that was cut by a sign is no count.
    if (i + 2 < words.size() && words[i + 2].isNumber() && words[i + 2].glued) return std::nullopt;
    return i + 2;
}

/// Past a tag of a table, "L1", "C2:".
std::optional<std::size_t> pastTag(Words words, std::size_t at) {
    const bool opens = words[at].startsLine || at == 0 || oneOf(words[at - 1], ": ; , .");
    if (!opens || !isAt(words, at, "l c") || at + 1 >= words.size() || !words[at + 1].isNumber() ||
        !words[at + 1].glued || words[at + 1].decimals > 0)
        return std::nullopt;
    return at + (isAt(words, at + 2, ": . ) -") ? 3 : 2);
}

/// Calls that say themselves where they begin.
std::vector<CallSpan> saidStarts(Words words) {
    std::vector<CallSpan> out;
    double next = 1;
    for (std::size_t i = 0; i < words.size(); ++i) {
        const bool restart = next > 1;
        if (const auto tag = pastTag(words, i)) {
            out.push_back({i, *tag, 0, 0, 0});
            i = *tag - 1;
            continue;
        }
        auto count = pastCount(words, i, next);
        if (!count && restart && (count = pastCount(words, i, 1))) next = 1;
        if (count) {
            ++next;
            out.push_back({i, *count, 0, 0, 0});
            i = *count - 1;
        } else if (oneOf(words[i], "thence then hence")) {
            if (!out.empty() && out.back().body == i)
                out.back().body = i + 1;
            else
                out.push_back({i, i + 1, 0, 0, 0});
        }
    }
    return out;
}

/// Where the clause of a word begins: behind the last sign that divides, or behind the figure before.
std::size_t clauseStart(Words words, std::size_t from, std::size_t at) {
    std::size_t i = at;
    while (i > from && !oneOf(words[i - 1], ", ; : .") && !words[i].startsLine) --i;
    return i;
}

bool dividedBetween(Words words, std::size_t from, std::size_t to) {
    for (std::size_t i = from; i < to; ++i)
        if (oneOf(words[i], "; .") || (i > from && words[i].startsLine)) return true;
    return to < words.size() && words[to].startsLine;
}

bool sentenceHas(Words words, std::size_t at, std::string_view list) {
    for (std::size_t i = at; i-- > 0;) {
        if (words[i].is(".") && !(i + 1 < words.size() && words[i + 1].glued)) break;
        if (oneOf(words[i], list)) return true;
        if (words[i].startsLine) break;
    }
    return false;
}

/// Splits a stretch that says "thence" at most at its beginning.
class Chain {
public:
    Chain(Words words, std::vector<CallSpan>& out) : words_(words), out_(out) {}

    /// `begun`: a call begins at `span.from`; else the first direction makes it. `strict`: only behind
    /// "running", since the calls of this text say "thence".
    void split(CallSpan span, bool begun, bool strict) {
        current_ = begun ? std::optional(span) : std::nullopt;
        figureEnd_ = begun ? span.body : span.from;
        for (std::size_t i = figureEnd_; i < span.to;) i = step(i, strict);
        close(span.to);
    }

private:
    Words words_;
    std::vector<CallSpan>& out_;
    std::optional<CallSpan> current_;
    std::size_t figureEnd_ = 0;
    bool direction_ = false;
    bool chord_ = false;
    bool curve_ = false;
    int figures_ = 0;

    void close(std::size_t to) {
        if (current_) {
            current_->to = to;
            out_.push_back(*current_);
        }
        current_.reset();
        direction_ = chord_ = curve_ = false;
        figures_ = 0;
    }

    void begin(std::size_t at) {
        close(at);
        current_ = CallSpan{at, at, 0, 0, 0};
    }

    [[nodiscard]] bool running(std::size_t at) const {
        for (std::size_t i = at; i > figureEnd_ && !oneOf(words_[i - 1], "; : ."); --i)
            if (oneOf(words_[i - 1], "run running runs going go goes proceed proceeds proceeding"))
                return true;
        // A list: "… and distances: N 45° E, 35.20 feet; S 45° E …".
        if (at > 0 && oneOf(words_[at - 1], ": ;")) return !sentenceHas(words_, at, "basis");
        return words_[at].is("bearing");
    }

    std::size_t step(std::size_t i, bool strict) {
        if (curveBeginsAt(words_, i)) {
            curveAt(i, strict);
            return i + 1;
        }
        if (const auto direction = callDirectionAt(words_, i)) {
            directionAt(i, strict);
            figureEnd_ = direction->end;
            return direction->end;
        }
        if (!words_[i].isNumber()) return i + 1;
        const auto length = lengthAt(words_, i);
        const auto angle = angleAt(words_, i);
        const std::size_t end = std::max(length ? length->end : i + 1, angle ? angle->end : i + 1);
        if ((length && length->unit) || (angle && angle->marked) || words_[i].decimals > 0) {
            ++figures_;
            figureEnd_ = end;
        }
        return end;
    }

    void curveAt(std::size_t i, bool strict) {
        const bool full = (direction_ && figures_ > 0 && !curve_) ||
                          (curve_ && figures_ >= 2 && dividedBetween(words_, figureEnd_, i));
        if (!current_ && !strict)
            begin(clauseStart(words_, figureEnd_, i));
        else if (current_ && full)
            begin(clauseStart(words_, figureEnd_, i));
        if (current_) curve_ = true;
    }

    void directionAt(std::size_t i, bool strict) {
        const Named named = namedBefore(words_, figureEnd_, i);
        if (named != Named::Nothing) {
            chord_ = chord_ || named == Named::Chord;
            return;
        }
        if (!current_) {
            if (strict ? !running(i) : sentenceHas(words_, i, "basis")) return;
            begin(clauseStart(words_, figureEnd_, i));
        } else if (direction_ || chord_ ||
                   (curve_ && figures_ >= 2 && dividedBetween(words_, figureEnd_, i))) {
            begin(clauseStart(words_, figureEnd_, i));
        }
        direction_ = true;
    }
};

/// "to the beginning of a curve", "to a point of reverse curvature", at the word "to".
bool leadsToCurve(Words words, std::size_t at, std::size_t to) {
    if (!words[at].is("to") || isAt(words, at + 1, "left right") || isAt(words, at + 2, "left right"))
        return false;
    bool begins = false;
    for (std::size_t i = at + 1; i < std::min(to, at + 12); ++i) {
        if (oneOf(words[i], "said end ; . thence tangency") || words[i].isNumber()) return false;
        begins = begins || oneOf(words[i], "beginning start point pc begin a");
        if (oneOf(words[i], "curve curvature arc")) return begins;
    }
    return false;
}

/// "Beginning at a point on a curve having a radius of 50 feet": what stands before all calls tells of the
/// first one's curve.
void openFirst(Words words, CallSpan& first) {
    bool said = false;
    for (std::size_t i = first.body; i < first.to; ++i) said = said || oneOf(words[i], "said same");
    for (std::size_t i = first.from; said && i-- > 0;) {
        if (!oneOf(words[i], "curve arc")) continue;
        first.openingFrom = clauseStart(words, 0, i);
        first.openingTo = first.from;
        return;
    }
}

void findOpenings(Words words, std::vector<CallSpan>& calls) {
    if (!calls.empty()) openFirst(words, calls.front());
    for (std::size_t k = 0; k < calls.size(); ++k) {
        CallSpan& call = calls[k];
        for (std::size_t i = call.body; i < call.to; ++i) {
            if (!leadsToCurve(words, i, call.to)) continue;
            bool figure = false;
            for (std::size_t j = call.body; j < i; ++j) figure = figure || words[j].isNumber();
            if (!figure) continue;
            if (k + 1 < calls.size()) {
                calls[k + 1].openingFrom = i;
                calls[k + 1].openingTo = call.to;
            }
            call.to = i;
            break;
        }
    }
}

Named tangentAt(Words words, std::size_t at) {
    if (isAt(words, at + 1, "length distance of = :")) return Named::TangentLength;
    if (isAt(words, at + 1, "bears bearing direction") || (at > 0 && isAt(words, at - 1, "initial whose")))
        return Named::StartTangent;
    return Named::Nothing;
}

Named nameAt(Words words, std::size_t at) {
    const CalledWord& word = words[at];
    const bool given = isAt(words, at + 1, "= :") ||
                       (at + 1 < words.size() && words[at + 1].isNumber() && oneOf(word, "r l d t c") &&
                        !(words[at + 1].glued && words[at + 1].decimals == 0));
    const bool dotted = given || (isAt(words, at + 1, ".") && words[at + 1].glued);
    if (oneOf(word, "radius radii rad") || (given && word.is("r"))) return Named::Radius;
    if (oneOf(word, "radial radially center centre")) return Named::Radial;
    if (oneOf(word, "chord chd chb") || (dotted && oneOf(word, "cb ch cd lc c"))) return Named::Chord;
    if (word.is("arc") || (given && oneOf(word, "l a"))) return Named::Arc;
    if (word.is("length")) {
        if (at > 0 && isAt(words, at - 1, "chord")) return Named::Chord;
        return at > 0 && isAt(words, at - 1, "tangent") ? Named::TangentLength : Named::Arc;
    }
    if (oneOf(word, "delta angle") || (given && word.is("d"))) return Named::Delta;
    if (word.is("tangent")) return tangentAt(words, at);
    if (given && word.is("t")) return Named::TangentLength;
    if (oneOf(word, "bears bear which whence whom basis witness reference meridian lies lying"))
        return Named::Aside;
    return Named::Nothing;
}

}  // namespace

std::vector<CallSpan> callsOf(Words words) {
    const auto starts = saidStarts(words);
    std::vector<CallSpan> out;
    Chain chain(words, out);
    const std::size_t first = starts.empty() ? words.size() : starts.front().from;
    chain.split({0, 0, first, 0, 0}, false, !starts.empty());
    for (std::size_t i = 0; i < starts.size(); ++i) {
        CallSpan span = starts[i];
        span.to = i + 1 < starts.size() ? starts[i + 1].from : words.size();
        chain.split(span, true, false);
    }
    findOpenings(words, out);
    return out;
}

Named namedBefore(Words words, std::size_t from, std::size_t at) {
    bool aside = false;
    for (std::size_t i = at; i > from; --i) {
        if (words[i - 1].is(";")) break;
        const Named named = nameAt(words, i - 1);
        if (named == Named::Aside)
            aside = true;
        else if (named != Named::Nothing)
            return named;
    }
    return aside ? Named::Aside : Named::Nothing;
}

NamedBehind namedBehind(Words words, std::size_t end, std::size_t to) {
    for (std::size_t i = end; i < std::min(to, end + 4); ++i) {
        if (words[i].isNumber() || oneOf(words[i], ", ; : . to")) break;
        if (oneOf(words[i], "radius radii")) return {Named::Radius, i + 1};
        if (words[i].is("arc")) return {Named::Arc, i + 1};
        if (words[i].is("chord")) return {Named::Chord, i + 1};
        if (oneOf(words[i], "delta angle central")) return {Named::Delta, i + 1};
    }
    return {Named::Nothing, end};
}

bool curveBeginsAt(Words words, std::size_t at) {
    if (isAt(words, at, "curving")) return true;
    const bool divided = at == 0 || oneOf(words[at - 1], ", ; : . thence then and") || words[at].startsLine;
    if (!isAt(words, at, "along around with by following upon") && !(divided && isAt(words, at, "on"))) {
        // "thence curve to the left", "a curve to the left" at the head of a clause.
        std::size_t i = at;
        if (isAt(words, i, "a")) ++i;
        return divided && isAt(words, i, "curve") && isAt(words, i + 1, "to left right");
    }
    for (std::size_t i = at + 1; i < std::min(words.size(), at + 14); ++i) {
        if (oneOf(words[i], "curve arc")) return true;
        if (!words[i].isNumber() &&
            !oneOf(words[i],
                   "a an the said of tangent tangential non nontangent not - compound reverse circular last "
                   "mentioned and regular same foot feet metre meter m ft radius long continuing simple "
                   "left right hand '"))
            return false;
    }
    return false;
}

std::optional<FoundDirection> callDirectionAt(Words words, std::size_t at) {
    auto found = directionAt(words, at);
    if (!found || !found->cardinal || words[at].is("due")) return found;
    for (std::size_t i = found->end; i < std::min(words.size(), found->end + 5); ++i) {
        if (words[i].isNumber()) {
            const auto length = lengthAt(words, i);
            if (length && length->unit) return found;
            return std::nullopt;
        }
        if (!oneOf(words[i], ", a for the distance of running (")) return std::nullopt;
    }
    return std::nullopt;
}

}  // namespace erdwerk::parcel
