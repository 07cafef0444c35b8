#include "core/survey/points.h"

#include <algorithm>
#include <cassert>
#include <cctype>
#include <map>

namespace erdwerk::survey {

namespace {

std::shared_ptr<const void> freshGeometry() {
    return std::make_shared<const char>();
}

}  // namespace

PointSet::PointSet(std::vector<SurveyPoint> points) : size_(points.size()), geometry_(freshGeometry()) {
    for (std::size_t from = 0; from < points.size(); from += blockSize) {
        const auto first = points.begin() + static_cast<std::ptrdiff_t>(from);
        const auto last =
            points.begin() + static_cast<std::ptrdiff_t>(std::min(points.size(), from + blockSize));
        blocks_.push_back(
            std::make_shared<const Block>(std::make_move_iterator(first), std::make_move_iterator(last)));
    }
}

PointSet PointSet::fromBlocks(std::vector<std::shared_ptr<const Block>> blocks) {
    PointSet set;
    set.blocks_ = std::move(blocks);
    set.geometry_ = freshGeometry();
    for (const auto& block : set.blocks_) set.size_ += block->size();
    return set;
}

const SurveyPoint& PointSet::operator[](std::size_t i) const {
    assert(i < size_);
    return (*blocks_[i / blockSize])[i % blockSize];
}

PointSet PointSet::with(std::size_t i, SurveyPoint point) const {
    assert(i < size_);
    PointSet out = *this;
    auto block = std::make_shared<Block>(*blocks_[i / blockSize]);
    auto& was = (*block)[i % blockSize];
    if (!(was.plan == point.plan) || was.height != point.height) out.geometry_ = freshGeometry();
    was = std::move(point);
    out.blocks_[i / blockSize] = std::move(block);
    return out;
}

PointSet PointSet::appended(std::vector<SurveyPoint> points) const {
    PointSet out = *this;
    std::vector<SurveyPoint> tail;
    if (!out.blocks_.empty() && out.blocks_.back()->size() < blockSize) {
        tail = *out.blocks_.back();
        out.blocks_.pop_back();
    }
    std::move(points.begin(), points.end(), std::back_inserter(tail));
    const PointSet rest(std::move(tail));
    out.blocks_.insert(out.blocks_.end(), rest.blocks_.begin(), rest.blocks_.end());
    return fromBlocks(std::move(out.blocks_));
}

PointSet PointSet::without(const std::vector<std::size_t>& positions) const {
    if (positions.empty()) return *this;
    // Blocks before the first removed point stay shared.
    const std::size_t firstBlock = positions.front() / blockSize;
    std::vector<std::shared_ptr<const Block>> blocks(
        blocks_.begin(), blocks_.begin() + static_cast<std::ptrdiff_t>(firstBlock));
    std::vector<SurveyPoint> tail;
    std::size_t next = 0;
    for (std::size_t i = firstBlock * blockSize; i < size_; ++i) {
        if (next < positions.size() && positions[next] == i)
            ++next;
        else
            tail.push_back((*this)[i]);
    }
    const PointSet rest(std::move(tail));
    blocks.insert(blocks.end(), rest.blocks_.begin(), rest.blocks_.end());
    return fromBlocks(std::move(blocks));
}

std::vector<SurveyPoint> PointSet::all() const {
    std::vector<SurveyPoint> out;
    out.reserve(size_);
    for (const auto& block : blocks_) out.insert(out.end(), block->begin(), block->end());
    return out;
}

std::optional<std::size_t> PointSet::find(const std::string& number) const {
    for (std::size_t i = 0; i < size_; ++i)
        if ((*this)[i].number == number) return i;
    return std::nullopt;
}

bool numberBefore(const std::string& a, const std::string& b) {
    const auto digit = [](char c) { return c >= '0' && c <= '9'; };
    std::size_t i = 0;
    std::size_t j = 0;
    while (i < a.size() && j < b.size()) {
        if (digit(a[i]) && digit(b[j])) {
            while (i < a.size() && a[i] == '0') ++i;
            while (j < b.size() && b[j] == '0') ++j;
            std::size_t iEnd = i;
            std::size_t jEnd = j;
            while (iEnd < a.size() && digit(a[iEnd])) ++iEnd;
            while (jEnd < b.size() && digit(b[jEnd])) ++jEnd;
            if (iEnd - i != jEnd - j) return iEnd - i < jEnd - j;
            const int order = a.compare(i, iEnd - i, b, j, jEnd - j);
            if (order != 0) return order < 0;
            i = iEnd;
            j = jEnd;
        } else {
            if (a[i] != b[j]) return a[i] < b[j];
            ++i;
            ++j;
        }
    }
    return a.size() - i < b.size() - j;
}

Chain chainByNumber(const PointSet& points, std::vector<std::size_t> members) {
    std::stable_sort(members.begin(), members.end(), [&](std::size_t a, std::size_t b) {
        return numberBefore(points[a].number, points[b].number);
    });
    return members;
}

std::vector<std::pair<std::string, Chain>> chainsByCode(const PointSet& points,
                                                        const std::vector<std::size_t>& members) {
    std::map<std::string, Chain> byCode;
    for (const std::size_t i : members) {
        std::string code = points[i].code;
        std::transform(code.begin(), code.end(), code.begin(),
                       [](unsigned char c) { return static_cast<char>(std::toupper(c)); });
        if (!code.empty()) byCode[code].push_back(i);
    }
    std::vector<std::pair<std::string, Chain>> out;
    for (auto& [code, chain] : byCode)
        if (chain.size() > 1) out.emplace_back(code, chainByNumber(points, std::move(chain)));
    return out;
}

std::string nextNumber(const PointSet& points) {
    unsigned long long largest = 0;
    for (std::size_t i = 0; i < points.size(); ++i) {
        const std::string& n = points[i].number;
        if (n.empty() || n.size() > 15 ||
            !std::all_of(n.begin(), n.end(), [](char c) { return c >= '0' && c <= '9'; }))
            continue;
        largest = std::max(largest, std::stoull(n));
    }
    return std::to_string(largest + 1);
}

}  // namespace erdwerk::survey
