global using CsCheck;
global using Shouldly;
global using Xunit;
global using Fobble.Core;
