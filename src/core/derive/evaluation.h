#pragma once
// One evaluation of a document: what the nodes ask each other, and what is remembered between evaluations. A
// node works out the results of one kind of object; each has a file of its own, and this is the list.

#include <map>
#include <memory>
#include <set>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "core/derive/dependency_cycles.h"
#include "core/derive/model.h"
#include "core/linework/height_solver.h"
#include "core/objects/line.h"

namespace erdwerk::derive {

using Input = std::shared_ptr<const void>;

/// What a result was made from, and the result.
struct Memo {
    std::vector<Input> inputs;
    std::string parameters;
    std::shared_ptr<const void> value;
};
/// By the name of the sort of result ("contours") and the object it is of.
using MemoKey = std::pair<std::string_view, ObjectId>;
struct MemoHash {
    std::size_t operator()(const MemoKey& key) const {
        return std::hash<std::string_view>()(key.first) ^ (key.second.value * 0x9E3779B97F4A7C15U);
    }
};
using Memory = std::unordered_map<MemoKey, Memo, MemoHash>;

/// Results that are compared with the one before: what stands on them is worth more than the comparison.
template <class T>
inline constexpr bool staysWhenEqual = false;
template <>
inline constexpr bool staysWhenEqual<linework::ResolvedLine> = true;
template <>
inline constexpr bool staysWhenEqual<FollowedLine> = true;

class Evaluation {
public:
    Evaluation(Memory& memory, const Document& document, const Context& context);
    Result<Derived> run();

    const Document& document;
    const Context& context;
    Derived out;

    // What nodes ask of others; worked out when it is asked for the first time. Null when there is no such
    // object, and for a surface while it is being worked out itself.
    std::shared_ptr<const SurfaceResult> surface(ObjectId id);
    std::shared_ptr<const linework::ResolvedLine> line(ObjectId id);
    std::shared_ptr<const route::AlignmentGeometry> alignment(ObjectId id);
    std::shared_ptr<const EarthworkResult> earthwork(ObjectId id);
    std::shared_ptr<const ProfileResult> profile(ObjectId id);
    std::shared_ptr<const ParcelResult> parcel(ObjectId id);
    std::shared_ptr<const std::vector<terrain::Contour>> contours(ObjectId surface);

    /// The remembered value when it was made from the same inputs, else a new one; the remembered one too
    /// when the new one is equal to it (see staysWhenEqual), so that what depends on it is not worked out
    /// again. A cancelled one is not kept.
    template <class T, class Make>
    std::shared_ptr<const T> remembered(std::string_view sort, ObjectId id, std::vector<Input> inputs,
                                        std::string parameters, const Make& make) {
        const Memo& memo = memory_[{sort, id}];
        if (memo.value && memo.inputs == inputs && memo.parameters == parameters)
            return std::static_pointer_cast<const T>(memo.value);
        auto value = std::make_shared<const T>(make());
        ++computed_;
        if constexpr (staysWhenEqual<T>) {
            const auto before = std::static_pointer_cast<const T>(memo.value);
            if (before && *before == *value) value = before;
        }
        if (!cancelled_) memory_[{sort, id}] = {std::move(inputs), std::move(parameters), value};
        return value;
    }
    /// The value as it was worked out last, from whatever; null when there is none.
    template <class T>
    std::shared_ptr<const T> last(std::string_view sort, ObjectId id) {
        return std::static_pointer_cast<const T>(memory_[{sort, id}].value);
    }
    /// What a surface takes from an object: for a cloud the points and which of them, whatever it looks like.
    Input survey(const std::shared_ptr<const Object>& object);
    /// The rest of the evaluation comes to nothing.
    void cancel() { cancelled_ = true; }
    [[nodiscard]] std::size_t computed() const { return computed_; }

    // What is being worked out now, for naming circles.
    linework::AskedParts asked;
    std::set<ObjectId> busySurfaces;
    std::set<ObjectId> busyEarthworks;

private:
    friend class CycleSolver;
    using Named = std::shared_ptr<const std::vector<ObjectId>>;
    linework::Surroundings surroundings();
    void readNames();
    void forgetWhatIsGone();
    /// Another object each time something that the lines of a cycle depend on is another.
    Input knotState(ObjectId member);
    /// What a cycle depends on and is not in it.
    std::vector<Input> outsideOf(const std::vector<ObjectId>& cycle);
    /// Objects that the rules of a line name, each once.
    [[nodiscard]] const std::vector<ObjectId>& namedBy(ObjectId line) const;
    std::shared_ptr<const linework::ResolvedLine> otherLine(ObjectId id);
    std::vector<Input> inputsOf(ObjectId line);
    std::shared_ptr<const linework::ResolvedLine> solved(ObjectId line);
    std::shared_ptr<const linework::ResolvedLine> following(ObjectId line);
    std::vector<ObjectId> underDesign(const Line& line, std::vector<Input>& from);
    Result<linework::Line3D> onDesign(const DesignOf& of);

    std::unordered_map<std::uint64_t, Named> named_;
    std::shared_ptr<const DependencyCycles> cycles_;
    std::map<ObjectId, Input> knotStates_;  ///< by the first of a cycle, in this evaluation
    linework::HeightSolver heights_;
    Memory& memory_;
    std::size_t computed_ = 0;
    bool cancelled_ = false;
};

/// Heights that a line had, for what can no longer be asked.
void keepLast(linework::ResolvedLine& line, const linework::ResolvedLine* before);

// The nodes. A kind of object that is not here does not compile.
void work(Evaluation& evaluation, ObjectId id, const Surface& surface);
void work(Evaluation& evaluation, ObjectId id, const Line& line);
void work(Evaluation& evaluation, ObjectId id, const Cloud& cloud);
void work(Evaluation& evaluation, ObjectId id, const Alignment& alignment);
void work(Evaluation& evaluation, ObjectId id, const Profile& profile);
void work(Evaluation& evaluation, ObjectId id, const Parcel& parcel);
void work(Evaluation& evaluation, ObjectId id, const Reading& reading);
void work(Evaluation& evaluation, ObjectId id, const Label& label);
void work(Evaluation& evaluation, ObjectId id, const Dimension& dimension);
void work(Evaluation& evaluation, ObjectId id, const Earthwork& earthwork);
void work(Evaluation& evaluation, ObjectId id, const Section& section);
// Nothing is worked out of these.
inline void work(Evaluation&, ObjectId, const Points&) {}
inline void work(Evaluation&, ObjectId, const LabelStyle&) {}
inline void work(Evaluation&, ObjectId, const Sheet&) {}
inline void work(Evaluation&, ObjectId, const Group&) {}
inline void work(Evaluation&, ObjectId, const HeightRaster&) {}
inline void work(Evaluation&, ObjectId, const Backdrop&) {}
inline void work(Evaluation&, ObjectId, const OffsetSet&) {}
inline void work(Evaluation&, ObjectId, const BatterKind&) {}
inline void work(Evaluation&, ObjectId, const DesignCriteria&) {}
inline void work(Evaluation&, ObjectId, const Marking&) {}
inline void work(Evaluation&, ObjectId, const DimensionStyle&) {}
inline void work(Evaluation&, ObjectId, const Table&) {}
inline void work(Evaluation&, ObjectId, const Wording&) {}
inline void work(Evaluation&, ObjectId, const Artwork&) {}

}  // namespace erdwerk::derive
