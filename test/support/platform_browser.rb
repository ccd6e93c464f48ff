# frozen_string_literal: true

require_relative "prepared"

# A browser test with all three platforms there, and a host who has signed in.
class PlatformBrowserTest < PreparedTest
  def setup
    super
    @lantern = RunningStandin.new("Lantern", EVERY_MS: 250).start
    @skein = RunningStandin.new("Skein", BEAT_MS: 1000).start
    prepare(platforms: [oxbow, @lantern, @skein])
    sign_in
  end

  def choose(name)
    visit "/feeds"
    click_on "Connect a chat", match: :first
    within("#add") { find(".kind", text: name).click }
  end

  def add(name, **fields)
    choose(name)
    within("#add") do
      fields.each { |field, value| fill_in field(name, field), with: value }
      click_on "Connect", exact: true
    end
    assert_selector ".lane[aria-label='#{name}'] .chip", text: "live"
  end

  # As the form calls it: Oxbow asks what any server that speaks IRC does.
  def field(name, field) = name == "Oxbow" ? field.to_s : "#{name.downcase}.#{field}"

  def lane(name, &block) = within(".lane[aria-label='#{name}']", &block)
end
