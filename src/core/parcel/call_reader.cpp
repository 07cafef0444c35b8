#include "core/parcel/call_reader.h"

#include <algorithm>
#include <array>

namespace erdwerk::parcel {

namespace {

bool isAt(Words words, std::size_t at, std::string_view list) {
    return at < words.size() && oneOf(words[at], list);
}

constexpr std::string_view numberedThings =
    "lot lots block book page parcel no number section township range tract volume document plot route road "
    "highway street map sheet file instrument unit corner point course ls rls";
constexpr std::string_view besideThings =
    "wide width road street inch inches strip easement high deep diameter rebar";

class CallReader {
public:
    CallReader(Words words, const CallSpan& span, const CallContext& context)
        : words_(words), span_(span), context_(context) {}

    CallReading read() {
        out_.course.isCurve = isCurve();
        if (out_.course.isCurve) figures(span_.openingFrom, span_.openingTo);
        to_ = false;
        figures(span_.body, span_.to);
        if (out_.course.isCurve) {
            sayings(span_.openingFrom, span_.openingTo);
            sayings(span_.body, span_.to);
            goOn();
        }
        out_.course.words = range();
        complete();
        return std::move(out_);
    }

private:
    Words words_;
    const CallSpan& span_;
    const CallContext& context_;
    CallReading out_;
    std::size_t figureEnd_ = 0;
    bool to_ = false;         ///< what follows tells of the thing that the course leads to
    bool chordSaid_ = false;  ///< the figure before was the chord's direction
    std::size_t directionEnd_ = 0;
    std::optional<FoundDirection> aside_;

    [[nodiscard]] TextRange range() const {
        std::size_t last = span_.to;
        while (last > span_.from + 1 && oneOf(words_[last - 1], ", ; . : and")) --last;
        return {words_[span_.from].place.from, words_[last - 1].place.to};
    }

    [[nodiscard]] bool curveFigureIn(std::size_t from, std::size_t to) const {
        for (std::size_t i = from; i < to; ++i) {
            if (curveBeginsAt(words_, i)) return true;
            if (i == from && isAt(words_, i, "curve arc")) return true;
            if (isAt(words_, i, "radius chord delta arc") && i + 1 < to) {
                std::size_t k = i + 1;
                while (k < to && isAt(words_, k, "of = : is length")) ++k;
                if (k < to && words_[k].isNumber()) return true;
            }
        }
        return false;
    }
    [[nodiscard]] bool isCurve() const { return curveFigureIn(span_.body, span_.to); }

    void unread(std::size_t from, std::size_t to) {
        out_.unread.push_back({words_[from].place.from, words_[to - 1].place.to});
    }

    void figures(std::size_t from, std::size_t to) {
        figureEnd_ = from;
        for (std::size_t i = from; i < to;) {
            if (words_[i].is("to") && !isAt(words_, i + 1, "the") && !isAt(words_, i + 1, "left right which"))
                to_ = to_ || settled();
            if (words_[i].is("to") && isAt(words_, i + 1, "the") && !isAt(words_, i + 2, "left right"))
                to_ = to_ || settled();
            if (areaAt(words_, i)) return;  // what follows is no call's any more
            const auto direction =
                words_[i].isNumber() && !isAt(words_, i + 1, "°") && !angleAt(words_, i)->marked
                    ? std::nullopt
                    : callDirectionAt(words_, i);
            if (direction)
                i = takeDirection(i, *direction);
            else if (words_[i].isNumber())
                i = takeNumber(i, to);
            else
                ++i;
        }
    }

    /// Whether what draws it was said, be it that it cannot be read.
    [[nodiscard]] bool settled() const {
        const auto& c = out_.course;
        const int figures = (c.radius ? 1 : 0) + (c.delta || c.arcLength || c.distance ? 1 : 0);
        const int straight = (c.azimuth ? 1 : 0) + (c.distance ? 1 : 0);
        return (c.isCurve ? figures : straight) + static_cast<int>(out_.unread.size()) >= 2;
    }

    std::size_t takeDirection(std::size_t at, const FoundDirection& found) {
        const Named named = namedBefore(words_, figureEnd_, at);
        const std::size_t from = std::exchange(figureEnd_, found.end);
        auto& c = out_.course;
        if (!found.figure || (found.bare && !context_.azimuths)) {
            if (named == Named::Aside || (to_ && named == Named::Nothing)) return found.end;
            out_.nothing = false;
            figureEnd_ = brokenEnd(found.end);
            unread(at, figureEnd_);
            directionEnd_ = figureEnd_;
            return figureEnd_;
        }
        if (c.isCurve && (named == Named::Radial || named == Named::Radius)) {
            c.radial = found.figure;
            c.radialFromCentre = fromCentre(from, at);
            return found.end;
        }
        if (c.isCurve && named == Named::StartTangent) {
            c.startTangent = found.figure;
            return found.end;
        }
        if (named == Named::Aside) {
            if (!aside_ && !to_ && out_.unread.empty()) aside_ = found;
            return found.end;
        }
        if (!c.azimuth && !(to_ && !c.isCurve)) {
            c.azimuth = found.figure;
            directionEnd_ = found.end;
            out_.nothing = false;
            chordSaid_ = true;
        }
        return found.end;
    }

    /// "the centre of which bears": to it; "to which a radial line bears": from it.
    [[nodiscard]] bool fromCentre(std::size_t from, std::size_t at) const {
        for (std::size_t i = from; i < at; ++i)
            if (oneOf(words_[i], "center centre point") && !isAt(words_, i + 1, "a")) {
                for (std::size_t k = from; k < i; ++k)
                    if (words_[k].is("line") || words_[k].is("from")) return true;
                return false;
            }
        return true;
    }

    /// A broken figure with what hangs on it: "N 45°3O'20" E".
    [[nodiscard]] std::size_t brokenEnd(std::size_t at) const {
        for (std::size_t i = at; i < std::min(span_.to, at + 7); ++i) {
            if (oneOf(words_[i], "e w east west")) return i + 1;
            if (oneOf(words_[i], ", ; a")) break;
        }
        std::size_t i = at;
        while (i < span_.to && words_[i].glued && !oneOf(words_[i], ", ; . : )")) ++i;
        return i;
    }

    [[nodiscard]] bool garbled(std::size_t at, std::size_t end) const {
        const bool tail = end < span_.to && words_[end].glued && words_[end].sort == CalledWord::Sort::Word &&
                          !oneOf(words_[end], "th st nd rd e w");
        const bool head = at > span_.body && words_[at].glued &&
                          (words_[at - 1].is(".") || words_[at - 1].is("?") ||
                           (words_[at - 1].sort == CalledWord::Sort::Word &&
                            !oneOf(words_[at - 1], "r l a d t c ch cb delta arc n s e w az")));
        return tail || head;
    }

    /// What stands beside a number so that it is none of the call's: a lot's, a pipe's.
    [[nodiscard]] bool ofAnother(std::size_t at, std::size_t end) const {
        if (at > 0 && (words_[at - 1].is("/") || words_[at - 1].is("#"))) return true;
        if (isAt(words_, end, "/ \"") || isAt(words_, at + 1, "/")) return true;
        for (std::size_t i = end; i < std::min(span_.to, end + 3); ++i)
            if (oneOf(words_[i], besideThings)) return true;
        std::size_t k = at;
        while (k > 0 && oneOf(words_[k - 1], ". ( -")) --k;
        return k > 0 && oneOf(words_[k - 1], numberedThings);
    }

    [[nodiscard]] bool passing(std::size_t at) const {
        for (std::size_t i = figureEnd_; i < at; ++i)
            if (oneOf(words_[i], "passing passes passed crossing crosses")) return true;
        return false;
    }
    [[nodiscard]] bool inAll(std::size_t at) const {
        for (std::size_t i = figureEnd_; i < at; ++i)
            if (oneOf(words_[i], "total all altogether")) return true;
        return false;
    }

    std::size_t takeNumber(std::size_t at, std::size_t to) {
        const auto angle = angleAt(words_, at);
        const auto length = lengthAt(words_, at);
        if (words_[at].spelled && !(length->unit) && !angle->marked) return at + 1;
        const bool isAngle = angle->marked && !length->unit;
        const std::size_t end = isAngle ? angle->end : length->end;
        if (ofAnother(at, length->end)) return end;
        if (!isAngle && garbled(at, end)) return takeGarbled(at, end);
        Named named = namedBefore(words_, figureEnd_, at);
        if (isAngle) return takeAngle(at, *angle, named);
        // "along the arc of a 50.00 foot radius curve": what follows at once is nearer.
        NamedBehind behind = namedBehind(words_, end, to);
        if (named != Named::Nothing && !(named == Named::Arc && behind.named == Named::Radius))
            behind = {named, end};
        if (passing(at) && !inAll(at)) {
            figureEnd_ = end;
            return end;
        }
        // "35.20 feet (10.729 m)", "fifty feet (50')": the same once more.
        const bool again = at > 0 && words_[at - 1].is("(") && figureEnd_ + 1 == at;
        if (length->unit && again && (*length->unit != context_.unit || saidAlready(*length))) return end;
        const std::size_t next = takeLength(at, *length, behind.named);
        // "a 50.00 foot radius, 35.20 feet along the arc": the radius is the first one's name.
        if (out_.course.isCurve) figureEnd_ = std::max(figureEnd_, behind.end);
        return next;
    }

    /// Whether this is the course's length as it was called before.
    [[nodiscard]] bool saidAlready(const FoundLength& length) const {
        const auto& c = out_.course;
        for (const auto* called : {&c.distance, &c.arcLength, &c.radius})
            if (*called && (*called)->value == inUnit(length).value) return true;
        return false;
    }

    std::size_t takeGarbled(std::size_t at, std::size_t end) {
        std::size_t from = at;
        while (from > span_.body && words_[from].glued && !oneOf(words_[from - 1], ", ; ( = :")) --from;
        while (end < span_.to && words_[end].glued && !oneOf(words_[end], ", ; ) :")) ++end;
        if (!to_ || !settled()) {
            unread(from, end);
            out_.nothing = false;
        }
        figureEnd_ = end;
        return end;
    }

    std::size_t takeAngle(std::size_t at, const FoundAngle& angle, Named named) {
        figureEnd_ = angle.end;
        auto& c = out_.course;
        const bool good = angle.figure.value >= 0;
        const bool direction = named == Named::Chord || (!c.isCurve && named != Named::Delta);
        if (named == Named::Aside && (c.azimuth || to_)) return angle.end;
        if (direction && context_.azimuths && good && !c.azimuth) {
            c.azimuth = angle.figure;
            directionEnd_ = angle.end;
            chordSaid_ = true;
        } else if (!direction && c.isCurve && good && !c.delta &&
                   angle.figure.value < Angle::degrees(360).radians()) {
            c.delta = angle.figure;
        } else if (to_) {
            return angle.end;
        } else {
            // "45°30'20" E", the other half of a bearing.
            figureEnd_ = brokenEnd(angle.end);
            unread(at, figureEnd_);
            directionEnd_ = figureEnd_;
        }
        out_.nothing = false;
        return figureEnd_;
    }

    [[nodiscard]] CalledFigure inUnit(const FoundLength& length) const {
        CalledFigure out = length.figure;
        // "Feet" in a text of survey feet are survey feet.
        const bool same = !length.unit || *length.unit == context_.unit ||
                          (*length.unit == CalledUnit::Foot && context_.unit == CalledUnit::SurveyFoot);
        if (!same) {
            const double scale = metresPer(*length.unit) / metresPer(context_.unit);
            out.value *= scale;
            out.half *= scale;
        }
        return out;
    }

    /// Whether a number without a unit stands where a length does: behind its name, or behind the direction.
    [[nodiscard]] bool bareLengthAt(std::size_t at, Named named) const {
        if (named != Named::Nothing && named != Named::Aside && named != Named::Delta) return true;
        if (at > 0 && isAt(words_, at - 1, "distance")) return true;
        if (at > 1 && isAt(words_, at - 1, "of") && isAt(words_, at - 2, "distance")) return true;
        if (directionEnd_ == 0) return false;
        for (std::size_t i = directionEnd_; i < at; ++i)
            if (!oneOf(words_[i], ", : - ( ) for a distance of")) return false;
        return true;
    }

    std::size_t takeLength(std::size_t at, const FoundLength& length, Named named) {
        const CalledFigure figure = inUnit(length);
        const bool bare = !length.unit;
        auto& c = out_.course;
        if (bare && named == Named::Delta && c.isCurve && !c.delta) {
            c.delta = CalledFigure{Angle::degrees(figure.value).radians(),
                                   Angle::degrees(figure.half).radians(), figure.words};
            figureEnd_ = length.end;
            return length.end;
        }
        if (bare && !bareLengthAt(at, named)) {
            const bool missing = c.isCurve ? !settled() : c.azimuth && !c.distance;
            if (!to_ && words_[at].decimals > 0 && missing && named != Named::Aside) unread(at, length.end);
            return length.end;
        }
        figureEnd_ = length.end;
        const bool chordBefore = std::exchange(chordSaid_, false);
        if (settled() && (named == Named::Aside || (to_ && named == Named::Nothing && !inAll(at))))
            return length.end;
        out_.nothing = false;
        if (!c.isCurve) {
            if (!c.distance || inAll(at))
                c.distance = figure;
            else if (!to_)
                unread(at, length.end);
            return length.end;
        }
        std::optional<CalledFigure>* place = nullptr;
        switch (named) {
            case Named::Radius:
                place = &c.radius;
                break;
            case Named::Chord:
                place = &c.distance;
                break;
            case Named::Arc:
                place = &c.arcLength;
                break;
            case Named::TangentLength:
            case Named::Radial:
                return length.end;
            default:
                place = chordBefore && !c.distance ? &c.distance : &c.arcLength;
                break;
        }
        if (!*place)
            *place = figure;
        else if (!to_)
            unread(at, length.end);
        return length.end;
    }

    void sayings(std::size_t from, std::size_t to) {
        for (std::size_t i = from; i < to; ++i) {
            side(i, from);
            tangency(i, from, to);
        }
    }

    void side(std::size_t i, std::size_t from) {
        auto& c = out_.course;
        if (!c.heading && i >= span_.body && i < span_.body + 4 && words_[i].text.ends_with("erly"))
            c.heading = compassOf(words_[i].text);
        if (!c.right && oneOf(words_[i], "left right")) {
            c.right = words_[i].is("right");
            std::size_t first = i;
            while (first > from && first + 2 > i && oneOf(words_[first - 1], "to the")) --first;
            c.sideWords = {words_[first].place.from, words_[i].place.to};
        }
        if (c.concave || !words_[i].is("concave")) return;
        std::size_t k = i + 1;
        while (isAt(words_, k, "to the")) ++k;
        if (k >= words_.size() || words_[k].isNumber()) return;
        c.concave = compassOf(words_[k].text);
        if (c.concave && !c.right) c.sideWords = {words_[i].place.from, words_[k].place.to};
    }

    void tangency(std::size_t i, std::size_t from, std::size_t to) {
        auto& c = out_.course;
        if (c.tangent) return;
        const auto say = [&](bool tangent, std::size_t first, std::size_t last) {
            c.tangent = tangent;
            c.tangentWords = {words_[first].place.from, words_[last].place.to};
        };
        if (oneOf(words_[i], "nontangent nontangential")) return say(false, i, i);
        if (oneOf(words_[i], "compound reverse") &&
            (isAt(words_, i + 1, "curve curvature") || (i > from && isAt(words_, i - 1, "curve"))))
            return say(true, i, i + 1 < to ? i + 1 : i);
        if (!oneOf(words_[i], "tangent tangential tangentially")) return;
        if (isAt(words_, i + 1, "length distance = : bears bearing direction of point")) return;
        if (i > from && isAt(words_, i - 1, "initial whose of")) return;
        std::size_t first = i;
        if (first > from && words_[first - 1].is("-")) --first;
        if (first > from && oneOf(words_[first - 1], "non not")) return say(false, first - 1, i);
        say(true, i, i);
    }

    [[nodiscard]] bool says(std::string_view list) const {
        for (std::size_t i = span_.body; i < span_.to; ++i)
            if (oneOf(words_[i], list)) return true;
        return false;
    }

    /// "continuing along said curve": what it does not say is that of the curve before.
    void goOn() {
        auto& c = out_.course;
        const CalledCourse* before = context_.curveBefore;
        if (!before) return;
        const bool opened = span_.openingTo > span_.openingFrom;
        if (!c.radius && !opened && says("said continuing same")) {
            c.radius = before->radius;
            if (!c.right && !c.concave) c.right = before->right;
            return;
        }
        for (const auto& [from, to] :
             {std::pair{span_.openingFrom, span_.openingTo}, std::pair{span_.body, span_.to}})
            for (std::size_t i = from; i < to; ++i) {
                if (c.right || c.concave || !before->right || !isAt(words_, i, "compound reverse")) continue;
                c.right = words_[i].is("compound") ? *before->right : !*before->right;
                c.sideWords = words_[i].place;
            }
    }

    void complete() {
        auto& c = out_.course;
        if (!c.isCurve && !c.azimuth && aside_) {
            c.azimuth = aside_->figure;
            out_.nothing = false;
        }
        if (out_.nothing) {
            std::size_t last = span_.to;
            while (last > span_.body && oneOf(words_[last - 1], "and")) --last;
            out_.opensList = (last > span_.from && words_[last - 1].is(":")) || says("following follows");
            if (!out_.opensList) out_.unread.push_back(c.words);
            return;
        }
        // Whatever draws it: a chord, or how far it goes round.
        const bool drawn =
            c.isCurve ? c.radius ? c.delta || c.arcLength || c.distance
                                 : (c.delta && (c.arcLength || c.distance)) || (c.arcLength && c.distance)
                      : c.azimuth && c.distance;
        const bool sided = !c.isCurve || c.right || c.concave || c.azimuth;
        const bool turned = !c.isCurve || c.tangent.value_or(true) || c.azimuth || c.startTangent || c.radial;
        if ((!drawn || !sided || !turned) && out_.unread.empty()) out_.unread.push_back(c.words);
    }
};

}  // namespace

CallReading readCall(Words words, const CallSpan& span, const CallContext& context) {
    return CallReader(words, span, context).read();
}

}  // namespace erdwerk::parcel
